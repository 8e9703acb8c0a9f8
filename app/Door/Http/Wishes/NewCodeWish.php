<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\CodeUse;

/** A new join code: chosen or drawn, and its terms. */
final readonly class NewCodeWish
{
    public function __construct(
        #[Must('max:20')] public ?string $chosen = null,
        public CodeUse $who = CodeUse::Approval,
        #[Must('date')] public ?string $startsAt = null,
        #[Must('date')] public ?string $endsAt = null,
        public ?int $cap = null,
    ) {}
}
