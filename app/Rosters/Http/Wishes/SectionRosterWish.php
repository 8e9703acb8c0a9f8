<?php

declare(strict_types=1);

namespace App\Rosters\Http\Wishes;

use App\Platform\Must;
use App\Platform\SheetFormat;

/** The roster of a section as a file, as of a day. */
final readonly class SectionRosterWish
{
    public function __construct(public SheetFormat $format, #[Must('date_format:Y-m-d')] public ?string $asOf = null) {}
}
