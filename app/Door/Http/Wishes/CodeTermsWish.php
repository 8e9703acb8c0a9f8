<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\CodeUse;

/** When a join code works, for how many, and for whom. */
final readonly class CodeTermsWish
{
    public function __construct(
        public CodeUse $who,
        #[Must('date')] public ?string $startsAt = null,
        #[Must('date')] public ?string $endsAt = null,
        public ?int $cap = null,
    ) {}
}
