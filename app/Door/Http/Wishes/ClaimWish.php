<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** The account of the list that is one’s own, and what shows it. */
final readonly class ClaimWish
{
    public function __construct(
        #[Must('max:40')] public string $code,
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
        #[Must('max:64')] public string $key,
        #[Must('max:40')] public string $proof,
        #[Must('max:256')] public string $password,
    ) {}
}
