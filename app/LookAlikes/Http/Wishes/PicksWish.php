<?php

declare(strict_types=1);

namespace App\LookAlikes\Http\Wishes;

use App\Platform\Must;

/** What the account that stays takes from which of them, as JSON. */
final readonly class PicksWish
{
    public function __construct(#[Must('json|max:2000')] public ?string $picks = null) {}
}
