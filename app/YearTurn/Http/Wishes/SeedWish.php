<?php

declare(strict_types=1);

namespace App\YearTurn\Http\Wishes;

use App\Platform\Must;

/** What a rehearsal before was made from: another of the same hand gives the same ids. */
final readonly class SeedWish
{
    public function __construct(#[Must('regex:/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/')] public ?string $seed = null) {}
}
