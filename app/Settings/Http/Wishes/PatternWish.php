<?php

declare(strict_types=1);

namespace App\Settings\Http\Wishes;

use App\Platform\Must;

/** A naming pattern of sections. */
final readonly class PatternWish
{
    public function __construct(#[Must('max:60')] public string $pattern) {}
}
