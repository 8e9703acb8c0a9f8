<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** Whose password is forgotten. */
final readonly class ForgottenWish
{
    public function __construct(#[Must('max:254')] public string $userName) {}
}
