<?php

declare(strict_types=1);

namespace App\LookAlikes\Http\Wishes;

use App\Platform\Must;

/** What the account that stays takes from which of the two, as looked at. */
final readonly class MergeWish
{
    /** @param  array<string, string|null>  $picks */
    public function __construct(
        #[Must('size:64')] public string $fingerprint,
        #[Must('max:10', each: 'nullable|string|max:26')] public array $picks = [],
    ) {}
}
