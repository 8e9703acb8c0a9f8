<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Roll\AccountProblem;

/** Which people of a school, in which order, and from where on. */
final readonly class PeopleWish
{
    public function __construct(
        public ?PersonKind $kind = null,
        #[Must('max:100')] public string $q = '',
        #[Must('max:2')] public string $grade = '',
        public ?AccountProblem $problem = null,
        #[Must('in:name,grade,number,email')] public string $sort = 'name',
        public bool $down = false,
        #[Must('max:800')] public string $after = '',
    ) {}
}
