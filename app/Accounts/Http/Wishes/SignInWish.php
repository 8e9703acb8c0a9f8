<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** User name and passphrase or password, and whether to stay signed in on this kind of device. */
final readonly class SignInWish
{
    public function __construct(
        #[Must('max:254')] public string $userName,
        #[Must('max:256')] public string $secret,
        #[Must('in:own,shared')] public string $stay = '',
    ) {}
}
