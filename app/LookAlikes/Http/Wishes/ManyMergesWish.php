<?php

declare(strict_types=1);

namespace App\LookAlikes\Http\Wishes;

use App\Platform\Must;

/** Clusters that are each to become one account, as ids apart by `-`. */
final readonly class ManyMergesWish
{
    /** @param  list<string>  $clusters */
    public function __construct(
        #[
            Must('min:1|max:200', each: 'regex:/^[0-7][0-9A-HJKMNP-TV-Z]{25}(-[0-7][0-9A-HJKMNP-TV-Z]{25}){1,4}$/'),
        ]
        public array $clusters,
    ) {}
}
