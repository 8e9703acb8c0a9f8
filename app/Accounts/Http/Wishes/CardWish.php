<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** The token of a login card, and whether it takes the place of whoever is signed in. */
final readonly class CardWish
{
    public function __construct(#[Must('max:64')] public string $token, public bool $instead = false) {}
}
