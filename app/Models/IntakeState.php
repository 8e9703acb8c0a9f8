<?php

declare(strict_types=1);

namespace App\Models;

/** Where a list stands between being brought in and being applied. */
enum IntakeState: string
{
    /** Read, and its plan made, in the background. */
    case Reading = 'reading';
    case Planned = 'planned';
    case Unreadable = 'unreadable';
    case Applying = 'applying';
    case Applied = 'applied';
    case Discarded = 'discarded';

    /** Whether it can still be said how it is to be read. */
    public function open(): bool
    {
        return in_array($this, [self::Reading, self::Planned, self::Unreadable], true);
    }

    /** Whether a job works on it. */
    public function busy(): bool
    {
        return $this === self::Reading || $this === self::Applying;
    }
}
