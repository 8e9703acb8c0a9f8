<?php

declare(strict_types=1);

namespace App\Rosters\Http\Wishes;

use App\Platform\Must;

/** The students of a school as a file, or the school as an export. */
final readonly class SchoolRosterWish
{
    /** @param  string|null  $since YYYY-MM-DD, for a OneRoster export of what has changed since; null for all */
    public function __construct(
        #[Must('in:csv,xlsx,ods,oneroster')] public string $format,
        #[Must('date_format:Y-m-d')] public ?string $since = null,
    ) {}
}
