<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;

/** So many cards. */
final readonly class SheetWish
{
    public function __construct(#[Must('min:0|max:100000')] public int $cards) {}
}
