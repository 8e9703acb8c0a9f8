<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;

/** A text to find people by. */
final readonly class FindWish
{
    public function __construct(#[Must('max:100')] public string $q) {}
}
