<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\ListLayout;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;

/** Reads the rows of a list as students, once its layout is known. Every cell it cannot read becomes a problem with its cure. */
final class ListReader
{
    /** @var list<Problem> of the row at hand */
    private array $problems = [];

    private readonly ?bool $dayFirst;

    private readonly int $numberWidth;

    private function __construct(Grid $grid, private readonly ListLayout $layout)
    {
        $cells = fn (Field $field): array => ($at = $layout->indexOf($field)) === null ? []
            : array_map(fn (Line $l): string => trim($l->cell($at)), $layout->body($grid));
        $this->dayFirst = CalendarDate::dayFirst($cells(Field::BirthDate));
        $this->numberWidth = self::usualWidth($cells(Field::StudentNumber));
    }

    /** @return list<StudentLine> totals and other rows without a student left out */
    public static function read(Grid $grid, ListLayout $layout): array
    {
        $reader = new self($grid, $layout);
        $lines = [];
        foreach ($layout->body($grid) as $line) {
            $student = $reader->line($line);
            if ($student !== null) {
                $lines[] = $student;
            }
        }

        return $lines;
    }

    private function line(Line $line): ?StudentLine
    {
        $this->problems = [];
        foreach ($line->flaws as $at => $flaw) {
            $column = $this->layout->columns[$at] ?? null;
            if ($column?->field !== null) {
                $this->problem($column->field, $flaw);
            }
        }
        $name = $this->name($line);
        if ($name->full() === '' || preg_match('/^(total|count|sum|totals|subtotal)\b/i', $name->full()) === 1) {
            if ($this->cell($line, Field::StudentNumber) === '' && $this->problems === []) {
                return null;
            }
            $this->problem(Field::FullName, 'There is no name. Type the student’s name, or delete the row.');
        }
        $section = $this->cell($line, Field::Section);
        $sections = $section === '' ? [] : array_values(array_filter(array_map(trim(...), preg_split('/\s*[;|\n]\s*/', $section) ?: []), fn (string $s): bool => $s !== ''));

        return new StudentLine(
            $line->number, $name, $this->studentNumber($line), $this->birthDate($line), $this->grade($line),
            $this->cell($line, Field::Homeroom), $sections, $this->mail($line, Field::Email),
            array_values(array_filter([
                $this->guardian($line, Field::GuardianName, Field::GuardianEmail, Field::GuardianPhone),
                $this->guardian($line, Field::Guardian2Name, Field::Guardian2Email, Field::Guardian2Phone),
            ])),
            $this->problems,
        );
    }

    private function cell(Line $line, Field $field): string
    {
        $at = $this->layout->indexOf($field);

        return $at === null ? '' : NameReader::tidy($line->cell($at));
    }

    private function name(Line $line): PersonName
    {
        $full = $this->cell($line, Field::FullName);
        if ($full !== '') {
            return NameReader::read($full, $this->layout->familyFirst);
        }
        $given = $this->cell($line, Field::GivenName);
        if ($this->layout->indexOf(Field::FamilyName) === null && str_contains($given, ' ')) {
            return NameReader::read($given, $this->layout->familyFirst);
        }

        return NameReader::mend(new PersonName($given, $this->cell($line, Field::FamilyName)));
    }

    private function studentNumber(Line $line): string
    {
        $cell = $this->cell($line, Field::StudentNumber);
        if (preg_match('/^\d[.,]?\d*E\+\d+$/i', $cell) === 1) {
            $this->problem(Field::StudentNumber, "“{$cell}” was a number that the spreadsheet shortened; its last digits are gone. Export the list again with this column as text.");

            return '';
        }
        $cell = (string) preg_replace('/\.0+$/', '', $cell);
        if (strlen($cell) > 40) {
            $this->problem(Field::StudentNumber, 'This is too long for a student number (40 characters at most).');

            return '';
        }

        return ctype_digit($cell) && strlen($cell) < $this->numberWidth ? str_pad($cell, $this->numberWidth, '0', STR_PAD_LEFT) : $cell;
    }

    private function birthDate(Line $line): string
    {
        $cell = $this->cell($line, Field::BirthDate);
        if ($cell === '') {
            return '';
        }
        $date = CalendarDate::read($cell, $this->dayFirst);
        if ($date === null) {
            $this->problem(Field::BirthDate, $this->dayFirst === null && preg_match('#^\d{1,2}[/.\-]\d{1,2}[/.\-]\d{2,4}$#', $cell) === 1
                ? "“{$cell}” can be read two ways. Write dates as 2015-04-03 (year, month, day)."
                : "“{$cell}” is not a date. Write it as 2015-04-03 (year, month, day).");
        }

        return $date ?? '';
    }

    private function grade(Line $line): string
    {
        $cell = $this->cell($line, Field::Grade);
        if ($cell === '') {
            return '';
        }
        $grade = GradeLevel::read($cell);
        if ($grade === null) {
            $this->problem(Field::Grade, "“{$cell}” is not a grade. Write PK, K, or a number from 1 to 13.");
        }

        return $grade?->code() ?? '';
    }

    private function mail(Line $line, Field $field): string
    {
        $cell = $this->cell($line, $field);
        if ($cell === '') {
            return '';
        }
        $mail = MailAddress::read($cell);
        if ($mail === null) {
            $this->problem($field, "“{$cell}” is not an e-mail address. Correct it, or empty the cell.");
        }

        return $mail->address ?? '';
    }

    private function guardian(Line $line, Field $name, Field $email, Field $phone): ?GuardianLine
    {
        $who = $this->cell($line, $name);
        $mail = $this->mail($line, $email);
        $number = (string) preg_replace('/[^\d+]/', '', $this->cell($line, $phone));
        if ($who === '' && $mail === '' && $number === '') {
            return null;
        }

        return new GuardianLine(NameReader::read($who), $mail, $number);
    }

    private function problem(Field $field, string $message): void
    {
        $at = $this->layout->indexOf($field) ?? $this->layout->indexOf(Field::GivenName) ?? 0;
        $heading = $this->layout->columns[$at]->heading;
        $this->problems[] = new Problem($heading !== '' ? $heading : self::letter($at), $message);
    }

    /** The spreadsheet's own name of a column: A, B .. Z, AA. */
    private static function letter(int $index): string
    {
        return ($index >= 26 ? chr(64 + intdiv($index, 26)) : '').chr(65 + $index % 26);
    }

    /**
     * The width that most all-digit numbers have; shorter ones lost their leading zeros to a spreadsheet.
     *
     * @param  list<string>  $cells
     */
    private static function usualWidth(array $cells): int
    {
        $digits = array_filter($cells, ctype_digit(...));
        if (count($digits) < 3) {
            return 0;
        }
        $widths = array_count_values(array_map(strlen(...), $digits));
        $widest = max(array_keys($widths));

        return count($digits) < $widths[$widest] * 2 ? $widest : 0;
    }
}
