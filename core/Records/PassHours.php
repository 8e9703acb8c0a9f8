<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** When a room pass works. */
enum PassHours: string
{
    case School = 'school';
    case Any = 'any';
}
