<?php

declare(strict_types=1);

namespace App\Platform;

/** The secret of a link. */
final readonly class TokenWish
{
    public function __construct(#[Must('max:64')] public string $token) {}
}
