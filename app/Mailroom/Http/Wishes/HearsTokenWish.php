<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;

final readonly class HearsTokenWish
{
    public function __construct(#[Must('max:80')] public string $token) {}
}
