<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Guardians\Hears;

/** How often a guardian hears from the school, and at what hour. */
final readonly class HearsWish
{
    /** @param  int  $hour of the school's clock */
    public function __construct(public Hears $often, #[Must('min:0|max:23')] public int $hour) {}
}
