<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** Which sheet of a list, and how many of its rows are passed over. */
final readonly class SheetWish
{
    public function __construct(#[Must('min:0')] public int $sheet = 0, #[Must('min:0')] public int $after = 0) {}
}
