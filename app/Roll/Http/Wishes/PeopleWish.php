<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\PersonKind;

/** Which people of a school, and from where on. */
final readonly class PeopleWish
{
    public function __construct(
        public ?PersonKind $kind = null,
        #[Must('max:100')] public string $q = '',
        #[Must('max:2')] public string $grade = '',
        #[Must('in:unplaced,never_signed_in,no_guardian,no_card')] public string $problem = '',
        #[Must('max:800')] public string $after = '',
    ) {}
}
