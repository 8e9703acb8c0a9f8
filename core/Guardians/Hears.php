<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** How often a guardian hears from the school by itself. */
enum Hears: string
{
    case Daily = 'daily';
    case Weekly = 'weekly';
    case Off = 'off';

    /** Where somebody has not said how often, and when: after work, before supper. */
    public const UNSAID = self::Weekly;

    public const HOUR = 17;
}
