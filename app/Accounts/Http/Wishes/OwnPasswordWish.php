<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** A password for oneself, and the one before. */
final readonly class OwnPasswordWish
{
    public function __construct(
        #[Must('max:256')] public string $password,
        #[Must('max:256')] public string $current = '',
    ) {}
}
