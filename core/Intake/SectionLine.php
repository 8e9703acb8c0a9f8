<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;

/** What one row of a list says of a section. */
final readonly class SectionLine
{
    /** @param  list<Problem>  $problems */
    public function __construct(
        public int $number,
        public string $name,
        public bool $homeroom,
        public string $grade,
        public PersonName $teacher,
        public string $teacherEmail,
        public array $problems,
        public string $sheet = '',
    ) {}
}
