<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** A guardian with a link: the password of the account it opens; null for one that has its own already. */
final readonly class AcceptWish
{
    public function __construct(
        #[Must('max:64')] public string $token,
        #[Must('max:200')] public ?string $password = null,
    ) {}
}
