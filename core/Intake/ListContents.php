<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Question;
use Vantrel\Core\Table\UnreadableList;

/** All that the sheets of an intake say, read. */
final readonly class ListContents
{
    /**
     * As many as can be planned and applied in 512 MB, guardians and all, also where everybody is known already (404
     * MB).
     */
    public const MOST_STUDENTS = 15_000;

    /**
     * @param  list<StudentLine>  $students
     * @param  list<StaffLine>  $staff
     * @param  list<SectionLine>  $sections
     * @param  list<string>  $warnings
     * @param  list<Question>  $questions on how the sheets are to be read
     * @param  array<int, CellLog>  $logs place of a table to what became of its cells
     */
    public function __construct(
        public array $students = [],
        public array $staff = [],
        public array $sections = [],
        public array $warnings = [],
        public array $questions = [],
        public array $logs = [],
    ) {}

    /**
     * The section whose roster this is, as it went out of here and came back: rows with account keys that all name one.
     */
    public function rosterOf(): ?string
    {
        $named = [];
        $keyed = false;
        foreach ($this->students as $line) {
            $keyed = $keyed || $line->account !== '';
            foreach (array_filter([$line->homeroom, ...$line->sections], fn(string $s): bool => $s !== '') as $name) {
                $named[$name] = $name;
            }
        }

        return $keyed && count($named) === 1 ? array_values($named)[0] : null;
    }

    public function rows(): int
    {
        return count($this->students) + count($this->staff) + count($this->sections);
    }

    public function and(self $other): self
    {
        return new self(
            [...$this->students, ...$other->students],
            [...$this->staff, ...$other->staff],
            [...$this->sections, ...$other->sections],
            [...$this->warnings, ...$other->warnings],
            [...$this->questions, ...$other->questions],
            $this->logs + $other->logs,
        );
    }

    /** @throws UnreadableList where there are more students than one plan holds */
    public function mustBeHeld(): void
    {
        if (count($this->students) > self::MOST_STUDENTS) {
            throw new UnreadableList(
                'The list names more than ' .
                    number_format(self::MOST_STUDENTS) .
                    ' students. Split it, by school or by grade, and drop the parts in one after the other.',
            );
        }
    }
}
