<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** A new address or number of one's own. */
final readonly class ContactWish
{
    public function __construct(
        #[Must('in:email,phone')] public string $what,
        #[Must('max:254')] public string $value,
    ) {}
}
