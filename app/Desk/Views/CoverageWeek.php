<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** How many of some students had what, in a week. */
final readonly class CoverageWeek extends Resource
{
    /** @param  string  $week its Monday, YYYY-MM-DD */
    public function __construct(
        public string $week,
        public int $students,
        public int $signedIn,
        public int $carded,
        public int $connected,
    ) {}
}
