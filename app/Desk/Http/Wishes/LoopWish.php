<?php

declare(strict_types=1);

namespace App\Desk\Http\Wishes;

use App\Platform\Must;

/** One kind of thing that waits. */
final readonly class LoopWish
{
    public function __construct(#[Must('max:30|regex:/^[a-z_]+$/')] public string $loop) {}
}
