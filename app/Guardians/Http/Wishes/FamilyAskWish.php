<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** Who somebody without an account is. */
final readonly class FamilyAskWish
{
    public function __construct(
        #[Must('max:120')] public string $givenName,
        #[Must('max:120')] public string $familyName,
        #[Must('max:254')] public string $email,
        #[Must('max:40')] public ?string $phone = null,
    ) {}
}
