<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;

/** Who has handed work in. */
final readonly class WorkWish
{
    /** @param  array<string, string>  $states done, missing or excused, by id of the student */
    public function __construct(#[Must('min:1|max:2000', each: 'in:done,missing,excused')] public array $states) {}
}
