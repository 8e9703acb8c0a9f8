<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** The own password, typed again. */
final readonly class CurrentPasswordWish
{
    public function __construct(#[Must('max:256')] public string $current = '') {}
}
