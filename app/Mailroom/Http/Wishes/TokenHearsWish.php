<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Guardians\Hears;

final readonly class TokenHearsWish
{
    /** @param  int  $hour of the school's clock */
    public function __construct(
        #[Must('max:80')] public string $token,
        public Hears $often,
        #[Must('min:0|max:23')] public int $hour,
    ) {}
}
