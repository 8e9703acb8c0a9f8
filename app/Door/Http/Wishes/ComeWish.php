<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** Asking to come in with the link of an invitation, by somebody who is not on record. */
final readonly class ComeWish
{
    public function __construct(
        #[Must('max:64')] public string $token,
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
        #[Must('max:256')] public string $password,
        #[Must('date_format:Y-m-d')] public ?string $birthDate = null,
        #[Must('max:40')] public ?string $number = null,
    ) {}
}
