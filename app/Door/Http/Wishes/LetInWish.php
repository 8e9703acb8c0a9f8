<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** As whom of the Roll a newcomer is let in; with an account of their own where nobody is named. */
final readonly class LetInWish
{
    public function __construct(#[Must('ulid')] public ?string $as = null) {}
}
