<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** A mail domain of the list. */
final readonly class DomainWish
{
    public function __construct(#[Must('max:120')] public string $domain) {}
}
