<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** That the plan of a list is to be applied as it was looked at. */
final readonly class ApplyWish
{
    public function __construct(
        #[Must('size:64')] public string $fingerprint,
        #[Must('max:1000')] public ?string $password = null,
    ) {}
}
