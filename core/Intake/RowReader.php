<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Mojibake;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Repair;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;

/**
 * Reads the cells of one row after the other: mends what spreadsheets break, and notes what it mended and what it
 * cannot read.
 */
final class RowReader
{
    /** What people write into a cell that has nothing in it. */
    // prettier-ignore
    private const NOTHING = [
        'n a', 'na', 'none', 'nil', 'null', 'unknown', 'tbd', 'tba', 'x', 'xx', 'xxx', 'no email', 'not known',
        'ninguno', 'aucun', '0000 00 00', 'nan', 'see office', 'on file', 'same', 'same as above', 'ditto',
    ];

    /** Ages no student has. */
    private const AGES = [2, 25];

    private Line $line;

    /** @var list<Problem> */
    private array $problems = [];

    /** @var list<Repair> */
    private array $repairs = [];

    private readonly ColumnFacts $facts;

    private readonly NameCells $names;

    private int $untaught = 0;

    private int $ambiguous = 0;

    private string $example = '';

    /** @param  list<Line>  $body */
    public function __construct(
        private readonly ListLayout $layout,
        array $body,
        private readonly ReadingAnswers $said,
        private readonly SchoolFacts $school,
        private readonly NameBook $book,
        private readonly string $today,
    ) {
        $this->facts = ColumnFacts::of($layout, $body, $school, $today);
        $this->names = new NameCells($this, $layout, $book);
    }

    public function begin(Line $line): void
    {
        $this->line = $line;
        $this->problems = $this->repairs = [];
    }

    /** What the file's own reading found wrong with cells, where they are needed. */
    public function flaws(Line $line): void
    {
        foreach ($line->flaws as $at => $flaw) {
            $column = $this->layout->columns[$at] ?? null;
            if ($column?->field !== null) {
                $this->problem($column->field, $flaw);
            }
        }
    }

    public function hasProblems(): bool
    {
        return $this->problems !== [];
    }

    /** @return list<Problem> */
    public function problems(): array
    {
        return $this->problems;
    }

    /** @return list<Repair> */
    public function repairs(): array
    {
        return $this->repairs;
    }

    /** Rows whose grade the school does not teach. */
    public function untaught(): int
    {
        return $this->untaught;
    }

    public function ambiguousDates(): int
    {
        return $this->ambiguous;
    }

    public function ambiguousExample(): string
    {
        return $this->example;
    }

    public function exampleAs(bool $dayFirst): string
    {
        return (string) CalendarDate::read($this->example, $dayFirst);
    }

    public function problem(Field $field, string $message, bool $stops = true): void
    {
        $column =
            $this->layout->column($field) ??
            ($this->layout->column(Field::GivenName) ??
                ($this->layout->column(Field::GuardianName) ?? ($this->layout->columns[0] ?? null)));
        $this->problems[] = new Problem($column?->name() ?? '', $message, $stops);
    }

    /** The cell's text: white space and encoding mended, words that mean nothing taken as empty. */
    public function cell(Field $field): string
    {
        return str_replace("\n", ' ', $this->cellWithBreaks($field));
    }

    public function cellWithBreaks(Field $field): string
    {
        $at = $this->layout->indexOf($field);
        if ($at === null) {
            return '';
        }
        $raw = $this->line->cell($at);
        $lines = array_map(NameReader::tidy(...), explode("\n", str_replace("\r", "\n", $raw)));
        $tidy = implode("\n", array_filter($lines, fn(string $l): bool => $l !== ''));
        $mended = Mojibake::mend($tidy);
        if ($mended !== $tidy) {
            $tidy = $this->mend($field, 'encoding', $tidy, $mended);
        }
        // A leading apostrophe is how a spreadsheet is told to keep a cell as text.
        if (preg_match("/^'[\\d=+@|%＝＋－＠﹢﹣﹦﹫−-]/u", $tidy) === 1) {
            $tidy = substr($tidy, 1);
        }

        return preg_match('/^[\W_]+$/u', $tidy) === 1 || in_array(NameKey::of($tidy), self::NOTHING, true) ? '' : $tidy;
    }

    public function name(Field $full, ?Field $given, ?Field $family): PersonName
    {
        return $this->names->read($full, $given, $family);
    }

    public function studentNumber(): string
    {
        $cell = $this->cell(Field::StudentNumber);
        if (preg_match('/^\d([.,]\d+)?E\+?\d+$/i', $cell) === 1) {
            $this->problem(
                Field::StudentNumber,
                "“{$cell}” was a number that the spreadsheet shortened; its last digits are gone. Export the " .
                    'list again with this column as text.',
            );

            return '';
        }
        $cell = (string) preg_replace('/^(\d+)[.,]0+$/', '$1', $cell);
        if (strlen($cell) > 40) {
            $this->problem(Field::StudentNumber, 'This is too long for a student number (40 characters at most).');

            return '';
        }
        if (str_contains($cell, '@')) {
            $this->problem(
                Field::StudentNumber,
                "“{$cell}” is an e-mail address, not a number. Move it to its own column.",
            );

            return '';
        }
        if (ctype_digit($cell) && strlen($cell) < $this->facts->numberWidth) {
            return $this->mend(
                Field::StudentNumber,
                'leading zeros',
                $cell,
                str_pad($cell, $this->facts->numberWidth, '0', STR_PAD_LEFT),
            );
        }

        return $cell;
    }

    public function birthDate(): string
    {
        $cell = $this->cell(Field::BirthDate);
        if ($cell === '') {
            return '';
        }
        $date = CalendarDate::read($cell, $this->layout->dayFirst, $this->facts->serialsFrom);
        if ($date === null) {
            if (CalendarDate::isAmbiguous($cell)) {
                $this->ambiguous++;
                $this->example = $this->example === '' ? $cell : $this->example;
                if ($this->said->about($this->layout->table, 'dates') !== 'none') {
                    $this->problem(
                        Field::BirthDate,
                        "“{$cell}” can be read two ways. Say which comes first, day or month; or write it as " .
                            '2015-04-03.',
                    );
                }

                return '';
            }
            $this->problem(Field::BirthDate, "“{$cell}” is not a date. Write it as 2015-04-03 (year, month, day).");

            return '';
        }
        if (CalendarDate::isSerial($cell)) {
            $date = $this->mend(Field::BirthDate, 'spreadsheet day number', $cell, $date);
            if (strlen($date) !== 10) {
                return '';
            }
        }
        $age = CalendarDate::age($date, $this->today);
        if ($date > $this->today || $age < self::AGES[0] || $age > self::AGES[1]) {
            $this->problem(
                Field::BirthDate,
                $date > $this->today
                    ? "$date is in the future. Correct the year."
                    : "Born $date, the student would be $age. Correct the date, or empty the cell.",
            );

            return '';
        }
        $grade = GradeLevel::read($this->cell(Field::Grade));
        if ($grade !== null && abs($age - ($grade->order + 5.5)) > 3.5) {
            $this->problem(
                Field::BirthDate,
                "Born $date, the student would be $age in {$grade->label()}. Check the date and the grade.",
                false,
            );
        }

        return $date;
    }

    /** A date that is no birth date; '' where it is none. */
    public function date(Field $field): string
    {
        $cell = $this->cell($field);
        if ($cell === '') {
            return '';
        }
        $date = CalendarDate::read($cell, $this->layout->dayFirst, $this->facts->serialsFrom);
        if ($date === null) {
            $this->problem(
                $field,
                CalendarDate::isAmbiguous($cell)
                    ? "“{$cell}” can be read two ways. Write it as 2026-09-03 (year, month, day)."
                    : "“{$cell}” is not a date. Write it as 2026-09-03 (year, month, day).",
            );
        }

        return $date ?? '';
    }

    public function grade(): string
    {
        $cell = $this->cell(Field::Grade);
        if ($cell === '') {
            return '';
        }
        $grade = GradeLevel::read($cell);
        if ($grade === null) {
            $this->problem(Field::Grade, "“{$cell}” is not a grade. Write PK, K, or a number from 1 to 13.");

            return '';
        }
        if (!$this->school->teaches($grade)) {
            $this->untaught++;
            $this->problem(
                Field::Grade,
                ucfirst($grade->label()) .
                    " is not taught at {$this->school->name} ({$this->school->grades()}), and is left out. " .
                    'Correct the grade, or bring the row in at the school that teaches it.',
                false,
            );

            return '';
        }

        return $grade->code();
    }

    public function mail(Field $field, bool $stops = true): string
    {
        $cell = $this->cell($field);
        if ($cell === '') {
            return '';
        }
        $mail = MailAddress::read($cell);
        if ($mail === null) {
            // Two addresses in one cell: the first is taken, and the rest is said.
            $parts = preg_split('/[\s,;\/]+/', $cell) ?: [];
            $mail = count($parts) > 1 ? MailAddress::read($parts[0]) : null;
            if ($mail === null) {
                $this->problem($field, "“{$cell}” is not an e-mail address. Correct it, or empty the cell.", $stops);

                return '';
            }
            $this->problem(
                $field,
                "There are two addresses; {$mail->address} is taken. Give the other a column of its own.",
                false,
            );
        }
        $meant = $this->facts->domains[$mail->domain()] ?? null;
        if ($meant !== null) {
            return $this->mend(
                $field,
                'mail domain',
                $mail->address,
                substr($mail->address, 0, -strlen($mail->domain())) . $meant,
            );
        }

        return $mail->address;
    }

    public function phone(Field $field): string
    {
        $cell = $this->cell($field);
        if ($cell === '') {
            return '';
        }
        $phone = Phone::read($cell, $this->school->country);
        if ($phone === null) {
            $this->problem(
                $field,
                "“{$cell}” cannot be a phone number with its area code, and is left out. Correct it, or " .
                    'empty the cell.',
                false,
            );
        }

        return $phone ?? '';
    }

    /** The value after mending, or as it was where a person keeps it. */
    public function mend(Field $field, string $kind, string $before, string $after): string
    {
        $column = $this->layout->column($field);
        if ($column === null || $this->said->keeps($this->layout->table, $this->line->number, $column->index)) {
            return $before;
        }
        $this->repairs[] = new Repair(
            "keep.t{$this->layout->table}.r{$this->line->number}.c$column->index",
            "keep.t{$this->layout->table}.c$column->index",
            $column->name(),
            $kind,
            $before,
            $after,
        );

        return $after;
    }
}
