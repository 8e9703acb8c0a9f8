<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** The secret of a link, and the password chosen with it. */
final readonly class NewPasswordWish
{
    public function __construct(#[Must('max:64')] public string $token, #[Must('max:256')] public string $password) {}
}
