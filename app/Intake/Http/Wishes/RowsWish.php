<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** Which rows of a plan, and from where on. */
final readonly class RowsWish
{
    public function __construct(
        #[
            Must(['regex:/^(new|update|same|ask|cannot|leaving)(,(new|update|same|ask|cannot|leaving))*$/']),
        ]
        public ?string $verdict = null,
        #[Must('min:0')] public int $after = 0,
    ) {}
}
