<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** Chosen lines of a worklist: ties between guardians and children, or requests. */
final readonly class TiesWish
{
    /** @param  list<string>  $ids */
    public function __construct(#[Must('min:1|max:1000', each: 'ulid')] public array $ids) {}
}
