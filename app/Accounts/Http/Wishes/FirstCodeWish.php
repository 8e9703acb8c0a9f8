<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** The first code an authenticator app shows. */
final readonly class FirstCodeWish
{
    public function __construct(#[Must('max:10')] public string $code) {}
}
