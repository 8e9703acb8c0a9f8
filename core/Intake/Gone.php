<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\RowNumbers;
use Vantrel\Core\Values\StudentStatus;

/**
 * Rows of students who have left, by a column of states or of exit dates: a list keeps them for years, and nobody means
 * to enroll them. Where the list is everyone, they are missing from it, and leave here too.
 */
final class Gone
{
    /** An end date of a course is none of these. */
    private const EXIT = '/exit|withdr|left|leav|drop|depart|baja|sortie|austritt|abgang/';

    /** @var list<int> */
    private array $rows = [];

    /** @var array<string, true> what the rows say */
    private array $said = [];

    /** @var array<string, true> states that nobody here knows */
    private array $unknown = [];

    private readonly bool $byDate;

    public function __construct(
        private readonly RowReader $row,
        private readonly DateCells $dates,
        private readonly ListLayout $layout,
        private readonly string $today,
    ) {
        $this->byDate =
            $layout->kind === ListKind::Students &&
            $layout->indexOf(Field::AccountKey) === null &&
            preg_match(self::EXIT, NameKey::of($layout->headingOf(Field::EndsOn))) === 1;
    }

    /** Whether the row that is being read is of somebody who has left. */
    public function isGone(int $number): bool
    {
        $state = $this->row->cell(Field::Status);
        $read = $state === '' ? null : StudentStatus::read($state, $this->layout->headingOf(Field::Status));
        if ($state !== '' && $read === null) {
            $this->unknown[$state] = true;
        }
        if ($read === StudentStatus::Gone) {
            return $this->is($number, $state);
        }
        $left = $this->byDate && $read === null ? $this->dates->date(Field::EndsOn) : '';
        // Who came back after leaving is here.
        if ($left === '' || $left > $this->today || $this->dates->date(Field::BeginsOn) > $left) {
            return false;
        }

        return $this->is($number, "{$this->layout->headingOf(Field::EndsOn)} $left");
    }

    /** The last day of a row's enrollments; the exit of a year long ago is none. */
    public function endsOn(): string
    {
        $ends = $this->dates->date(Field::EndsOn);

        return $this->byDate && $ends <= $this->today ? '' : $ends;
    }

    private function is(int $number, string $said): bool
    {
        $this->rows[] = $number;
        $this->said[$said] = true;
        $this->row->log->leftRow($number, "it says that the student has left: $said");

        return true;
    }

    /**
     * @param  string  $of " of Sheet 2", '' where there is one sheet
     * @return list<string>
     */
    public function warnings(string $of): array
    {
        $some = fn(array $set): string => '“' . implode('”, “', array_slice(array_keys($set), 0, 4)) . '”';
        $warnings = [];
        if ($this->rows !== []) {
            $warnings[] = RowNumbers::sentence(
                $this->rows,
                $of,
                'says that the student has left (' . $some($this->said) . '), and is left out.',
                'say that the students have left (' . $some($this->said) . '), and are left out.',
            );
        }
        if ($this->unknown !== []) {
            $warnings[] =
                "It is not known what {$some($this->unknown)} means in column " .
                $this->layout->headingOf(Field::Status) .
                "$of; rows that say so are read as of students who are here.";
        }

        return $warnings;
    }
}
