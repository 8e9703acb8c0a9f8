<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** Asking to come in with a new account. */
final readonly class JoinRequestWish
{
    public function __construct(
        #[Must('max:40')] public string $code,
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
        #[Must('date_format:Y-m-d')] public ?string $birthDate = null,
        #[Must('max:40')] public ?string $number = null,
        #[Must('max:254')] public ?string $email = null,
        #[Must('max:256')] public ?string $password = null,
    ) {}
}
