<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** The secret of a newcomer’s mail, and the password chosen with it. */
final readonly class ConfirmWish
{
    public function __construct(#[Must('max:64')] public string $token, #[Must('max:256')] public string $password) {}
}
