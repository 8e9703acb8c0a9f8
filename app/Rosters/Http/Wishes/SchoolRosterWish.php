<?php

declare(strict_types=1);

namespace App\Rosters\Http\Wishes;

use App\Platform\Must;

/** The students of a school as a file, or the school as an export. */
final readonly class SchoolRosterWish
{
    public function __construct(#[Must('in:csv,xlsx,ods,oneroster')] public string $format) {}
}
