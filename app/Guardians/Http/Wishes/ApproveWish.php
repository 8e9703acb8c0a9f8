<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

final readonly class ApproveWish
{
    /** @param  string|null  $guardian whom of those on record; null for their own account, or somebody new */
    public function __construct(#[Must('ulid')] public ?string $guardian = null) {}
}
