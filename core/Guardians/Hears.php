<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** How often a guardian hears from the school by itself. */
enum Hears: string
{
    case Daily = 'daily';
    case Weekly = 'weekly';
    case Off = 'off';
}
