<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** Who takes over the sections of somebody who leaves the staff. */
final readonly class OffBoardWish
{
    public function __construct(#[Must('ulid')] public ?string $to = null) {}
}
