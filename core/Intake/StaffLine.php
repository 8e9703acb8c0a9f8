<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;

/** What one row of a list says of a member of staff. */
final readonly class StaffLine
{
    /**
     * @param  list<string>  $sections in which they teach
     * @param  string  $role lead, co_teacher or assistant
     * @param  list<Problem>  $problems
     */
    public function __construct(
        public int $number,
        public PersonName $name,
        public string $email,
        public string $phone,
        public array $sections,
        public string $role,
        public array $problems,
        public string $sheet = '',
    ) {}
}
