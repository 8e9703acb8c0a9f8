<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Question;

/** All that the sheets of an intake say, read. */
final readonly class ListContents
{
    /**
     * @param  list<StudentLine>  $students
     * @param  list<StaffLine>  $staff
     * @param  list<SectionLine>  $sections
     * @param  list<string>  $warnings
     * @param  list<Question>  $questions on how the sheets are to be read
     */
    public function __construct(public array $students = [], public array $staff = [], public array $sections = [], public array $warnings = [], public array $questions = [])
    {
    }

    public function rows(): int
    {
        return count($this->students) + count($this->staff) + count($this->sections);
    }

    public function and(self $other): self
    {
        return new self(
            [...$this->students, ...$other->students], [...$this->staff, ...$other->staff], [...$this->sections, ...$other->sections],
            [...$this->warnings, ...$other->warnings], [...$this->questions, ...$other->questions],
        );
    }
}
