<?php

declare(strict_types=1);

namespace App\LookAlikes\Http\Wishes;

use App\Platform\Must;

/** Which one of them is somebody else than the others; each of them somebody, where none is named. */
final readonly class ApartWish
{
    public function __construct(#[Must('ulid')] public ?string $who = null) {}
}
