<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** Which child, at which school, as somebody without a letter knows it. */
final readonly class FamilySeekWish
{
    /** @param  string  $birthDate YYYY-MM-DD */
    public function __construct(
        #[Must('ulid')] public string $school,
        #[Must('max:120')] public string $childGivenName,
        #[Must('max:120')] public string $childFamilyName,
        #[Must('date_format:Y-m-d')] public string $birthDate,
    ) {}
}
