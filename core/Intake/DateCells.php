<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;

/** Reads the dates of a row, as its columns write them. */
final class DateCells
{
    /** Ages no student has. */
    private const AGES = [2, 25];

    private int $ambiguous = 0;

    private string $example = '';

    public function __construct(
        private readonly RowReader $row,
        private readonly ListLayout $layout,
        private readonly ReadingAnswers $said,
        private readonly string $today,
    ) {}

    private function exampleAs(bool $dayFirst): string
    {
        return (string) CalendarDate::read($this->example, $dayFirst);
    }

    public function birthDate(): string
    {
        $cell = $this->row->cell(Field::BirthDate);
        if ($cell === '') {
            return '';
        }
        $date = CalendarDate::read($cell, $this->layout->dayFirst, $this->row->facts->serialsFrom);
        if ($date === null) {
            if (CalendarDate::isAmbiguous($cell)) {
                $this->ambiguous++;
                $this->example = $this->example === '' ? $cell : $this->example;
                if ($this->said->about($this->layout->table, 'dates') !== 'none') {
                    $this->row->problem(
                        Field::BirthDate,
                        "“{$cell}” can be read two ways. Say which comes first, day or month; or write it as " .
                            '2015-04-03.',
                    );
                }

                return '';
            }
            $this->row->problem(
                Field::BirthDate,
                "“{$cell}” is not a date. Write it as 2015-04-03 (year, month, day).",
            );

            return '';
        }
        if (CalendarDate::isSerial($cell)) {
            $date = $this->row->mend(Field::BirthDate, 'spreadsheet day number', $cell, $date);
            if (strlen($date) !== 10) {
                return '';
            }
        }
        if ($this->isHalfConverted() && preg_match('/^\d{4}-\d\d-\d\d/', $cell) === 1) {
            $date = $this->row->mend(Field::BirthDate, 'day and month turned back', $date, CalendarDate::turned($date));
        }
        $age = CalendarDate::age($date, $this->today);
        if ($date > $this->today || $age < self::AGES[0] || $age > self::AGES[1]) {
            $this->row->problem(
                Field::BirthDate,
                $date > $this->today
                    ? "$date is in the future. Correct the year."
                    : "Born $date, the student would be $age. Correct the date, or empty the cell.",
            );

            return '';
        }
        $grade = GradeLevel::read($this->row->cell(Field::Grade));
        if ($grade !== null && abs($age - ($grade->order + 5.5)) > 3.5) {
            $this->row->problem(
                Field::BirthDate,
                "Born $date, the student would be $age in {$grade->label()}. Check the date and the grade.",
                false,
            );
        }

        return $date;
    }

    /** Whether real dates of the column are turned back: nobody has said that they are right. */
    private function isHalfConverted(): bool
    {
        return $this->row->facts->halfConverted && $this->said->about($this->layout->table, 'turned') !== 'keep';
    }

    /** A date that is no birth date; '' where it is none. */
    public function date(Field $field): string
    {
        $cell = $this->row->cell($field);
        if ($cell === '') {
            return '';
        }
        $date = CalendarDate::read($cell, $this->layout->dayFirst, $this->row->facts->serialsFrom);
        if ($date === null) {
            $this->row->problem(
                $field,
                CalendarDate::isAmbiguous($cell)
                    ? "“{$cell}” can be read two ways, and is left out. Write it as 2026-09-03 (year, month, day)."
                    : "“{$cell}” is not a date, and is left out. Write it as 2026-09-03 (year, month, day).",
                false,
            );
        }

        return $date ?? '';
    }

    /** @return list<Question> on how the dates of the column are written */
    public function questions(): array
    {
        $questions = [];
        if ($this->ambiguous > 0 && $this->said->about($this->layout->table, 'dates') === null) {
            $questions[] = new Question(
                "t{$this->layout->table}.dates",
                null,
                'Which comes first in the dates of ' . $this->layout->headingOf(Field::BirthDate) . ', day or month?',
                'No date of the column settles it; for example ' . $this->example . '.',
                [
                    new Choice('month', 'The month', $this->example . ' is ' . $this->exampleAs(false)),
                    new Choice('day', 'The day', $this->example . ' is ' . $this->exampleAs(true)),
                    new Choice('none', 'Leave these dates out', 'the students come in without a birth date'),
                ],
            );
        }

        if ($this->isHalfConverted() && $this->said->about($this->layout->table, 'turned') === null) {
            $questions[] = new Question(
                "t{$this->layout->table}.turned",
                null,
                'Did a spreadsheet turn day and month of ' . $this->layout->headingOf(Field::BirthDate) . '?',
                'Dates up to the 12th of a month are real dates there, and all later ones are text with the day ' .
                    'first: so it looks where a list was opened in a spreadsheet of the other order.',
                [
                    new Choice('turn', 'Yes, turn them back', 'as the plan shows them'),
                    new Choice('keep', 'No, they are right', 'the dates stay as they are in the file'),
                ],
            );
        }

        return $questions;
    }
}
