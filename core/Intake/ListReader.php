<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\RowNumbers;
use Vantrel\Core\Table\Sheet;

/**
 * Reads the rows of a sheet as what they are, once its layout is known. Every cell it cannot read becomes a problem
 * with its cure.
 */
final class ListReader
{
    private RowReader $row;

    private readonly GuardianCells $guardians;

    private readonly SectionCells $sections;

    private readonly AsideCells $aside;

    private readonly DateCells $dates;

    private readonly OtherSchools $others;

    private readonly Gone $gone;

    private readonly StaffCells $staff;

    /** @var list<int> rows that a column of roles says are of guardians */
    private array $roles = [];

    /** @var list<string> */
    private array $warnings = [];

    private function __construct(
        private readonly Sheet $sheet,
        private readonly ListLayout $layout,
        private readonly string $label,
        private readonly ?string $section,
        ReadingAnswers $said,
        private readonly SchoolFacts $school,
        NameBook $book,
        string $today,
    ) {
        $this->row = new RowReader($layout, $layout->body($sheet->grid), $said, $school, $book, $today);
        $body = $layout->body($sheet->grid);
        $this->guardians = new GuardianCells($this->row, $layout, $book, $body);
        $this->sections = new SectionCells($this->row, $layout, $section, $body);
        $this->aside = new AsideCells($this->row);
        $this->dates = new DateCells($this->row, $layout, $said, $today);
        $this->gone = new Gone($this->row, $this->dates, $layout, $today);
        $this->others = new OtherSchools($this->row, $layout, $school, $body);
        $this->staff = new StaffCells($this->row, $this->sections, $this->others, $label);
        $this->warnings = ExchangedNames::warnings($layout, $body, $book, $label === '' ? '' : " of $label");
    }

    /**
     * @param  string  $label what the sheet is called beside others, '' where there is one only
     * @param  string|null  $section the section that all rows of the sheet belong to, where its name says so
     * @param  string  $today YYYY-MM-DD, for telling whether a birth date can be one
     */
    public static function read(
        Sheet $sheet,
        ListLayout $layout,
        string $label,
        ?string $section,
        ReadingAnswers $said,
        SchoolFacts $school,
        NameBook $book,
        string $today,
    ): ListContents {
        $reader = new self($sheet, $layout, $label, $section, $said, $school, $book, $today);

        return $reader->contents($said);
    }

    private function contents(ReadingAnswers $said): ListContents
    {
        $students = $staff = $sections = $titles = $nobody = [];
        foreach ($this->layout->body($this->sheet->grid) as $line) {
            if (!$line->kept && $this->isTitle($line)) {
                $titles[] = $line->number;
                $this->row->log->leftRow($line->number, 'it is read as a title');

                continue;
            }
            $this->row->begin($line);
            $kind = $this->kindOf($line);
            if (
                $kind !== ListKind::Staff &&
                $kind !== ListKind::Sections &&
                !$line->kept &&
                $this->gone->isGone($line->number)
            ) {
                $this->row->close();

                continue;
            }
            $read = match ($kind) {
                ListKind::Students => $this->student($line, true),
                ListKind::Guardians => $this->guardian($line),
                ListKind::Enrollments => $this->enrollment($line),
                ListKind::Staff => $this->staff->person($line),
                ListKind::Sections => $this->staff->section($line),
                null => null,
            };
            match (true) {
                $read instanceof StudentLine => ($students[] = $read),
                $read instanceof StaffLine => ($staff[] = $read),
                $read instanceof SectionLine => ($sections[] = $read),
                $kind === null => $this->row->log->leftRow(
                    $line->number,
                    'it is of a guardian, and does not say whose',
                ),
                default => ($nobody[] = $this->row->log->nobody($line, $this->layout)),
            };
            $this->row->close();
        }
        $nobody = array_values(array_filter($nobody));
        $of = $this->label === '' ? '' : " of $this->label";
        if ($titles !== []) {
            $this->warnings[] = RowNumbers::sentence(
                $titles,
                $of,
                'is read as a title, not as a person.',
                'are read as titles, not as people.',
            );
        }
        if ($this->row->untaught * 5 > count($students) && $this->row->untaught > 1) {
            $this->warnings[] =
                $this->row->untaught .
                ' of ' .
                count($students) .
                " rows$of have a grade that {$this->school->name} does not teach ({$this->school->grades()}). " .
                'Is this the list of another school?';
        }
        if ($nobody !== []) {
            $this->warnings[] = RowNumbers::sentence(
                $nobody,
                $of,
                'names nobody, and is left out.',
                'name nobody, and are left out.',
            );
        }
        $unread = [...$this->layout->unread(), ...$this->row->log->unused($this->layout)];
        if ($unread !== []) {
            $this->warnings[] =
                'Nothing is read from ' .
                (count($unread) === 1 ? 'column ' : 'the columns ') .
                Words::some($unread, 6) .
                "$of.";
        }
        array_unshift($this->warnings, ...$this->row->caution->warnings($of));
        array_push(
            $this->warnings,
            ...$this->others->warnings($of),
            ...$this->gone->warnings($of),
            ...$this->sections->warnings($of),
        );
        if ($this->roles !== []) {
            $this->warnings[] = RowNumbers::sentence(
                $this->roles,
                $of,
                'is of a guardian and does not say of which student; it is left out.',
                'are of guardians and do not say of which students; they are left out.',
            );
        }
        foreach ($this->sheet->notes as $note) {
            $this->warnings[] = $this->label === '' ? $note : "$this->label: $note";
        }
        if ($this->sheet->check !== '') {
            $this->warnings[] = $this->sheet->check;
        }
        $questions = $this->layout->questions($said);
        array_push($questions, ...$this->dates->questions());

        return new ListContents($students, $staff, $sections, $this->warnings, $questions, [
            $this->layout->table => $this->row->log,
        ]);
    }

    /** What the row is: where students and staff stand in one list, a column of roles tells; null for a guardian. */
    private function kindOf(Line $line): ?ListKind
    {
        $kind = $this->layout->kind;
        if (!in_array($kind, [ListKind::Students, ListKind::Staff], true)) {
            return $kind;
        }
        $role = $this->row->cell(Field::Role);
        if (StaffRoles::isGuardian($role)) {
            $this->roles[] = $line->number;

            return null;
        }

        return match (true) {
            $role === '' => $kind,
            StaffRoles::isStudent($role) => ListKind::Students,
            StaffRoles::read($role) !== null => ListKind::Staff,
            default => $kind,
        };
    }

    /**
     * A line between the rows that heads a group ("Grade 4", "Ms. Vale's class:"): one cell where the others have
     * several.
     */
    private function isTitle(Line $line): bool
    {
        // What a heading above says of the row does not stand in it.
        $filled = array_values(
            array_filter(
                $line->cells,
                fn(string $cell, int $c): bool => trim($cell) !== '' && $line->place($c) >= 0,
                ARRAY_FILTER_USE_BOTH,
            ),
        );
        $named = array_filter($this->layout->columns, fn($c): bool => $c->field !== null);
        if (count($filled) !== 1 || $line->flaws !== []) {
            return false;
        }
        if (count($named) < 3) {
            // In a list of names alone, what has a figure in it is no name.
            return $this->layout->kind === ListKind::Students &&
                preg_match('/\d|:\s*$/', (string) preg_replace('/\s*\([\w -]+\)\s*$/u', '', $filled[0])) === 1;
        }

        return preg_match('/[:\d]|\b(grade|class|section|homeroom|teacher|page|students?|list)\b/iu', $filled[0]) === 1;
    }

    private function student(Line $line, bool $mayAdd): ?StudentLine
    {
        $this->row->flaws($line);
        $this->others->look();
        $name = $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        if ($this->row->isNobody($name)) {
            if (
                $this->row->cell(Field::StudentNumber) === '' &&
                $this->row->cell(Field::AccountKey) === '' &&
                !$this->row->hasProblems()
            ) {
                return null;
            }
            if ($this->row->cell(Field::AccountKey) === '') {
                $this->row->problem(Field::FullName, 'There is no name. Type the student’s name, or delete the row.');
            }
        }
        $sections = $this->sections->named($line);
        [$begins, $ends] = [$this->dates->date(Field::BeginsOn), $this->gone->endsOn()];
        [$preferred, $language] = [$this->aside->preferred($name), $this->aside->language()];

        return new StudentLine(
            $line->number,
            $name,
            $this->row->studentNumber(),
            $this->dates->birthDate(),
            $this->row->grade(),
            $this->sections->homeroom($line),
            $sections,
            $this->row->mail(Field::Email),
            $this->guardians->all($name),
            $this->row->problems(),
            $this->label,
            $mayAdd,
            $this->row->cell(Field::AccountKey),
            $this->row->repairs(),
            $begins,
            $ends,
            preferred: $preferred,
            language: $language,
        );
    }

    /** A guardian's own row says nothing of the student but who it is. */
    private function guardian(Line $line): ?StudentLine
    {
        $this->row->flaws($line);
        $this->others->look();
        $own =
            $this->layout->indexOf(Field::StudentName) !== null ||
            ($this->layout->indexOf(Field::GuardianName) === null &&
                $this->layout->indexOf(Field::GuardianGiven) === null &&
                $this->layout->indexOf(Field::GuardianEmail) === null);
        $student = $own
            ? $this->row->name(Field::StudentName, null, null)
            : $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        $guardians = $own
            ? $this->guardians->read(
                Field::FullName,
                Field::GivenName,
                Field::FamilyName,
                Field::Email,
                $this->layout->indexOf(Field::Phone) !== null ? Field::Phone : Field::GuardianPhone,
                Field::GuardianRelationship,
                $student,
            )
            : $this->guardians->all($student);
        $number = $this->row->studentNumber();
        if ($number === '' && $student->full() === '' && $this->row->cell(Field::AccountKey) === '') {
            if ($guardians === [] && !$this->row->hasProblems()) {
                return null;
            }
            $this->row->problem(
                Field::StudentNumber,
                'The row does not say which student the guardian belongs to. Type the student’s number or name.',
            );
        }

        return new StudentLine(
            $line->number,
            $student,
            $number,
            '',
            '',
            '',
            [],
            '',
            $guardians,
            $this->row->problems(),
            $this->label,
            false,
            $this->row->cell(Field::AccountKey),
            $this->row->repairs(),
        );
    }

    private function enrollment(Line $line): StudentLine|StaffLine|null
    {
        $this->row->flaws($line);
        $this->others->look();
        $name = $this->row->name(
            $this->layout->indexOf(Field::StudentName) !== null ? Field::StudentName : Field::FullName,
            Field::GivenName,
            Field::FamilyName,
        );
        $sections = [...array_filter([$this->sections->homeroom($line)]), ...$this->sections->named($line)];
        $number = $this->row->studentNumber();
        $mail = $this->row->mail(Field::Email);
        $role = StaffRoles::read($this->row->cell(Field::Role));
        if ($number === '' && $mail === '' && $name->full() === '' && $this->row->cell(Field::AccountKey) === '') {
            return null;
        }
        if ($sections === []) {
            $this->row->problem(Field::Section, 'The row names no section. Type its name, or delete the row.');
        }
        [$begins, $ends] = [$this->dates->date(Field::BeginsOn), $this->dates->date(Field::EndsOn)];
        if ($role !== null && $mail !== '') {
            return new StaffLine(
                $line->number,
                $name,
                $mail,
                '',
                $sections,
                $role,
                $this->row->problems(),
                $this->label,
            );
        }

        return new StudentLine(
            $line->number,
            $name,
            $number,
            '',
            '',
            '',
            $sections,
            $mail,
            [],
            $this->row->problems(),
            $this->label,
            false,
            $this->row->cell(Field::AccountKey),
            $this->row->repairs(),
            $begins,
            $ends,
        );
    }
}
