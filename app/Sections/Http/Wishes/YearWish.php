<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;

/** Of which school year; the current one where none is named. */
final readonly class YearWish
{
    public function __construct(#[Must('ulid')] public ?string $year = null) {}
}
