<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;

/** As which student; the first where none is named. */
final readonly class LookWish
{
    public function __construct(#[Must('ulid')] public ?string $person = null) {}
}
