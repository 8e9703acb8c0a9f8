<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** Who leads from now on. */
final readonly class LeadWish
{
    public function __construct(#[Must('ulid')] public string $person) {}
}
