<?php

declare(strict_types=1);

namespace App\Retention\Http\Wishes;

use App\Platform\Must;

/** Why a guardian is not given what is held about their child. */
final readonly class HeldRefusalWish
{
    public function __construct(#[Must('max:300')] public string $reason) {}
}
