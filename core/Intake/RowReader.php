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
use Vantrel\Core\Table\TextMark;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;
use Vantrel\Core\Values\StudentNumber;

/**
 * Reads the cells of one row after the other: mends what spreadsheets break, and notes what it mended and what it
 * cannot read.
 */
final class RowReader
{
    /** Fields that several columns may hold together, and what goes between them. */
    private const HELD_BY_SEVERAL = ['family_name' => ' ', 'section' => "\n", 'teacher' => ', '];

    private const GRADE_AND_CLASS =
        '/^(gr|grade|grado|curso|jahrgang)( y)? (rm|room|hr|homeroom|class|sect|section|grupo|' . 'seccion|klasse)$/';

    /** What people write into a cell that has nothing in it. */
    // prettier-ignore
    private const NOTHING = [
        'n a', 'na', 'none', 'nil', 'null', 'unknown', 'tbd', 'tba', 'x', 'xx', 'xxx', 'no email', 'not known',
        'ninguno', 'aucun', '0000 00 00', 'nan', 'see office', 'on file', 'same', 'same as above', 'ditto',
    ];

    private Line $line;

    /** @var list<Problem> */
    private array $problems = [];

    /** @var list<Problem> notes beside the row, which stop nothing */
    private array $cautions = [];

    /** @var list<Repair> */
    private array $repairs = [];

    public readonly ColumnFacts $facts;

    private readonly NameCells $names;

    /** Rows whose grade the school does not teach. */
    public int $untaught = 0;

    /** @var array<int, string|null> columns of the row that were asked for, see {@see CellLog::close} */
    private array $read = [];

    public readonly CellLog $log;

    public readonly Caution $caution;

    /** @param  list<Line>  $body */
    public function __construct(
        private readonly ListLayout $layout,
        array $body,
        private readonly ReadingAnswers $said,
        private readonly SchoolFacts $school,
        private readonly NameBook $book,
        string $today,
    ) {
        $this->log = new CellLog();
        $this->caution = new Caution($layout);
        $this->facts = ColumnFacts::of($layout, $body, $school, $today);
        $this->names = new NameCells($this, $layout, $book);
    }

    public function begin(Line $line): void
    {
        $this->line = $line;
        $this->problems = $this->cautions = $this->repairs = $this->read = [];
    }

    /** Keeps what became of the row's cells. */
    public function close(): void
    {
        $this->log->close($this->line, $this->layout, $this->read, $this->repairs, $this->problems());
    }

    /** What the file's own reading found wrong with cells where they are needed, and notes that must not be missed. */
    public function flaws(Line $line): void
    {
        foreach ($line->flaws as $at => $flaw) {
            $column = $this->layout->columns[$at] ?? null;
            if ($column?->field !== null) {
                $this->problem($column->field, $flaw);
            }
        }
        $this->cautions = $this->caution->of($line);
    }

    public function hasProblems(): bool
    {
        return $this->problems !== [];
    }

    /** @return list<Problem> a cell that was asked for twice says what is wrong with it once */
    public function problems(): array
    {
        return array_values(array_unique([...$this->problems, ...$this->cautions], SORT_REGULAR));
    }

    /** @return list<Repair> */
    public function repairs(): array
    {
        return $this->repairs;
    }

    public function problem(Field $field, string $message, bool $stops = true): void
    {
        $column =
            $this->layout->column($field) ??
            ($this->layout->column(Field::GivenName) ??
                ($this->layout->column(Field::GuardianName) ?? ($this->layout->columns[0] ?? null)));
        $this->problems[] = new Problem($column?->name() ?? '', $message, $stops);
    }

    /** Whether a name is none, or the word of a total; not in a row that somebody said is one of the list. */
    public function isNobody(PersonName $name): bool
    {
        return (preg_match_all('/[\p{L}\d]/u', $name->full()) < 2 &&
            preg_match('/\p{Han}|\p{Hangul}/u', $name->full()) !== 1) ||
            (!$this->line->kept &&
                preg_match('/^(total|count|sum|totals|subtotal|gesamt|suma)\b/iu', $name->full()) === 1);
    }

    /** The cell's text: white space and encoding mended, words that mean nothing taken as empty. */
    public function cell(Field $field): string
    {
        return str_replace("\n", ' ', $this->cellWithBreaks($field));
    }

    /** What the column of the field says, line by line; where it has several columns, what they say together. */
    public function cellWithBreaks(Field $field): string
    {
        $first = $this->layout->indexOf($field);
        if ($first === null || !isset(self::HELD_BY_SEVERAL[$field->value])) {
            return $first === null ? '' : $this->at($field, $first);
        }
        $parts = array_map(fn(int $at): string => $this->at($field, $at), $this->layout->indexesOf($field));

        return implode(self::HELD_BY_SEVERAL[$field->value], array_filter($parts, fn(string $p): bool => $p !== ''));
    }

    private function at(Field $field, int $at): string
    {
        $this->read[$at] = null;
        $raw = $this->line->cell($at);
        if (preg_match('/^[!-&(-~]+(?: [!-~]+)*$/D', $raw) === 1) {
            $tidy = $raw;
        } else {
            $lines = array_map(NameReader::tidy(...), explode("\n", str_replace("\r", "\n", $raw)));
            $tidy = implode("\n", array_filter($lines, fn(string $l): bool => $l !== ''));
            $mended = Mojibake::mend($tidy);
            $tidy = $mended === $tidy ? $tidy : $this->mend($field, 'encoding', $tidy, $mended);
        }
        // A leading apostrophe is how a spreadsheet is told to keep a cell as text.
        if (str_contains($tidy, "'")) {
            $tidy = TextMark::off((string) preg_replace("/^'(?=\\d)/", '', $tidy));
        }

        if (
            $tidy === '' ||
            preg_match('/^[\W_]+$/u', $tidy) === 1 ||
            (strlen($tidy) < 16 && in_array(NameKey::of($tidy), self::NOTHING, true))
        ) {
            $this->read[$at] = $tidy === '' ? null : 'it says that there is nothing';

            return '';
        }

        return $tidy;
    }

    public function name(Field $full, ?Field $given, ?Field $family): PersonName
    {
        return $this->names->read($full, $given, $family);
    }

    public function studentNumber(): string
    {
        $cell = $this->cell(Field::StudentNumber);
        if ($this->layout->indexOf(Field::StudentNumber) === null) {
            // "Quill, Ada (050101)": where no column has the numbers, they may stand beside the names.
            return preg_match(
                '/[(\[#]\s*(?:id|no|nr)?[.:# ]*([A-Z]{0,2}\d{4,})\s*(?:[)\]]|$)/i',
                $this->cell(Field::FullName),
                $m,
            ) === 1
                ? $m[1]
                : '';
        }
        if (preg_match('/^\d([.,]\d+)?E\+?\d+$/i', $cell) === 1) {
            $this->problem(
                Field::StudentNumber,
                "“{$cell}” was a number that the spreadsheet shortened; its last digits are gone. Export the " .
                    'list again with this column as text.',
            );

            return '';
        }
        $written = (string) preg_replace('/^(\d+)[.,]0+$/', '$1', $cell);
        $bare = StudentNumber::bare($cell);
        $cell = $bare === $written ? $bare : $this->mend(Field::StudentNumber, 'signs around the number', $cell, $bare);
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

    public function grade(): string
    {
        $cell = $this->layout->indexOf(Field::Grade) === null ? $this->gradeOfClass() : $this->cell(Field::Grade);
        if ($cell === '') {
            return '';
        }
        $bare = trim((string) preg_replace('/\s*\([^)]*\)/u', '', $cell));
        $grade = GradeLevel::read($cell);
        if ($grade !== null && $bare !== $cell) {
            $this->mend(Field::Grade, 'note left out', $cell, $bare);
        }
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

    /** "3" of "3/12" under "Gr/Rm", of "3°A" under "Grado y grupo". */
    private function gradeOfClass(): string
    {
        $column = $this->layout->column(Field::Homeroom) ?? $this->layout->column(Field::Section);
        if ($column === null || preg_match(self::GRADE_AND_CLASS, NameKey::of($column->heading)) !== 1) {
            return '';
        }
        $grade =
            preg_match('/^(?:0?\d{1,2}|PK|TK|K)(?![\d])/iu', $this->line->bare($column->index), $m) === 1 ? $m[0] : '';

        return GradeLevel::read($grade) === null ? '' : $grade;
    }

    public function mail(Field $field, bool $stops = true): string
    {
        $cell = $this->cell($field);
        if ($cell === '') {
            return '';
        }
        $mail = MailAddress::read($cell);
        if ($mail === null) {
            // "email: joan@x.example", "joan @ x.example", a dot at the end: one address, slipped.
            $mended = (string) preg_replace(
                ['/^e-?mail\s*[:=]\s*/iu', '/\s*@\s*/u', '/[.,;]+$/u'],
                ['', '@', ''],
                $cell,
            );
            $slip = preg_match('/\s/', $mended) === 1 ? null : MailAddress::read($mended);
            if ($slip !== null) {
                $kept = $this->mend($field, 'address put right', $cell, $slip->address);
                $mail = MailAddress::read($kept);
            }
        }
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
        if ($mail->isNobodys()) {
            $this->problem($field, "“{$cell}” stands for no address, and is left out.", false);

            return '';
        }
        $meant = $this->facts->domains[$mail->domain()] ?? null;
        $domain = -strlen($mail->domain());

        return $meant === null
            ? $mail->address
            : $this->mend($field, 'mail domain', $mail->address, substr($mail->address, 0, $domain) . $meant);
    }

    /** @return list<string> the addresses of a cell for two people, none of which is too many */
    public function mails(Field $field): array
    {
        $parts = preg_split('/[\s,;\/]+/', $this->cell($field), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        $read = array_map(MailAddress::read(...), $parts);

        return count($parts) === 2 && !in_array(null, $read, true)
            ? array_map(fn(?MailAddress $m): string => (string) $m?->address, $read)
            : [$this->mail($field)];
    }

    public function phone(Field $field): string
    {
        $cell = $this->cell($field);
        if ($cell === '') {
            return '';
        }
        $phone = Phone::read($cell, $this->school->country);
        $parts = preg_split('/\s*[\/;|]\s*|\s*,\s*(?=\D*\d{3})|\s+(?:or|and)\s+/i', $cell) ?: [];
        $numbers = array_values(
            array_filter(array_map(fn(string $p): ?string => Phone::read($p, $this->school->country), $parts)),
        );
        if (count($numbers) > 1) {
            $this->problem(
                $field,
                "There are two numbers; $numbers[0] is taken. Give the other a column of its own.",
                false,
            );

            return $numbers[0];
        }
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
