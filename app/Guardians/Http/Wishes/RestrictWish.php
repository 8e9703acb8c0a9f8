<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** Why a guardian has no contact with a child through the school. */
final readonly class RestrictWish
{
    public function __construct(#[Must('max:200')] public string $why) {}
}
