<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** What to bring in from the school's record. */
final readonly class PullWish
{
    /** @param  string  $number of the one student */
    public function __construct(
        #[Must('in:whole,changes,one')] public string $what,
        #[Must('max:40')] public string $number = '',
    ) {}
}
