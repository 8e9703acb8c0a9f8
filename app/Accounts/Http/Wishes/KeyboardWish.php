<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** The password of whoever does it, typed again. */
final readonly class KeyboardWish
{
    public function __construct(#[Must('max:256')] public string $password = '') {}
}
