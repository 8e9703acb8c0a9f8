<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;

/** As of which day; today where none is named. */
final readonly class DayWish
{
    public function __construct(#[Must('date_format:Y-m-d')] public ?string $asOf = null) {}
}
