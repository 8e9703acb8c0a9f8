<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** Whose whole list this is, and the words that confirm how many leave. */
final readonly class ScopeWish
{
    public function __construct(
        #[Must('max:60')] public ?string $everyone,
        #[Must('max:60')] public ?string $words = null,
    ) {}
}
