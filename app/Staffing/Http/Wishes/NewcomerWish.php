<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** Who accepts an invitation with a new account. */
final readonly class NewcomerWish
{
    public function __construct(
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
        #[Must('max:256')] public string $password,
    ) {}
}
