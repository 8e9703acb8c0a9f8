<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** Accepting an invitation: with the account signed in, or with what {@see NewcomerWish} asks for a new one. */
final readonly class AcceptWish
{
    public function __construct(
        #[Must('max:64')] public string $token,
        #[Must('max:60')] public ?string $givenName = null,
        #[Must('max:60')] public ?string $familyName = null,
        #[Must('max:256')] public ?string $password = null,
    ) {}
}
