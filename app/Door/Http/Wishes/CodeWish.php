<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** A join code as typed. */
final readonly class CodeWish
{
    public function __construct(#[Must('max:40')] public string $code) {}
}
