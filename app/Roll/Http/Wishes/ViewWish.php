<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;

/** Filters and order of the Roll under a name, for oneself or for all who coordinate the school. */
final readonly class ViewWish
{
    /** @param  string  $query as in the address: kind=student&grade=03 */
    public function __construct(
        #[Must('max:40')] public string $name,
        #[Must(['max:500', 'regex:/^[\\w=&%.,+-]+$/'])] public string $query,
        public bool $shared = false,
    ) {}
}
