<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** A code of the second factor, or a recovery code. */
final readonly class FactorCodeWish
{
    public function __construct(#[Must('max:40')] public string $code) {}
}
