<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** A code somebody would like. */
final readonly class ChosenCodeWish
{
    public function __construct(#[Must('max:20')] public string $chosen) {}
}
