<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** Whose a reserve account is. */
final readonly class ReserveOwnerWish
{
    public function __construct(
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
        #[Must('date_format:Y-m-d')] public ?string $birthDate = null,
        #[Must('max:40')] public ?string $number = null,
    ) {}
}
