<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** A newcomer’s code and name. */
final readonly class NameWish
{
    public function __construct(
        #[Must('max:40')] public string $code,
        #[Must('max:60')] public string $givenName,
        #[Must('max:60')] public string $familyName,
    ) {}
}
