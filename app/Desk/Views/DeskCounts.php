<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** How many are at a school: counted apart from what waits, which is asked for every half minute. */
final readonly class DeskCounts extends Resource
{
    public function __construct(public int $students, public int $guardians, public int $staff, public int $sections) {}
}
