<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Sheet;

/**
 * Reads the rows of a sheet as what they are, once its layout is known. Every cell it cannot read becomes a problem
 * with its cure.
 */
final class ListReader
{
    private RowReader $row;

    private readonly GuardianCells $guardians;

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
        $this->guardians = new GuardianCells($this->row, $layout, $book);
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
        $students = $staff = $sections = $titles = [];
        foreach ($this->layout->body($this->sheet->grid) as $line) {
            if ($this->isTitle($line)) {
                $titles[] = $line->number;

                continue;
            }
            $this->row->begin($line);
            $read = match ($this->layout->kind) {
                ListKind::Students => $this->student($line, true),
                ListKind::Guardians => $this->guardian($line),
                ListKind::Enrollments => $this->enrollment($line),
                ListKind::Staff => $this->staff($line),
                ListKind::Sections => $this->section($line),
            };
            match (true) {
                $read instanceof StudentLine => ($students[] = $read),
                $read instanceof StaffLine => ($staff[] = $read),
                $read instanceof SectionLine => ($sections[] = $read),
                default => null,
            };
        }
        $of = $this->label === '' ? '' : " of $this->label";
        if ($titles !== []) {
            $this->warnings[] =
                (count($titles) === 1
                    ? "Row $titles[0]$of is read as a title, not as a person"
                    : 'Rows ' .
                        implode(', ', array_slice($titles, 0, 8)) .
                        (count($titles) > 8 ? ' and ' . (count($titles) - 8) . ' more' : '') .
                        "$of are read as titles, not as people") . '.';
        }
        if ($this->row->untaught() * 5 > count($students) && $this->row->untaught() > 1) {
            $this->warnings[] =
                $this->row->untaught() .
                ' of ' .
                count($students) .
                " rows$of have a grade that {$this->school->name} does not teach ({$this->school->grades()}). " .
                'Is this the list of another school?';
        }
        if ($this->sheet->check !== '') {
            $this->warnings[] = $this->sheet->check;
        }
        $questions = $this->layout->questions($said);
        if ($this->row->ambiguousDates() > 0 && $said->about($this->layout->table, 'dates') === null) {
            $questions[] = new Question(
                "t{$this->layout->table}.dates",
                null,
                'Which comes first in the dates of ' . $this->layout->headingOf(Field::BirthDate) . ', day or month?',
                'No date of the column settles it; for example ' . $this->row->ambiguousExample() . '.',
                [
                    new Choice(
                        'month',
                        'The month',
                        $this->row->ambiguousExample() . ' is ' . $this->row->exampleAs(false),
                    ),
                    new Choice('day', 'The day', $this->row->ambiguousExample() . ' is ' . $this->row->exampleAs(true)),
                    new Choice('none', 'Leave these dates out', 'the students come in without a birth date'),
                ],
            );
        }

        return new ListContents($students, $staff, $sections, $this->warnings, $questions);
    }

    /**
     * A line between the rows that heads a group ("Grade 4", "Ms. Vale's class:"): one cell where the others have
     * several.
     */
    private function isTitle(Line $line): bool
    {
        $filled = array_values(array_filter($line->cells, fn(string $c): bool => trim($c) !== ''));
        $named = array_filter($this->layout->columns, fn($c): bool => $c->field !== null);
        if (count($filled) !== 1 || $line->flaws !== []) {
            return false;
        }
        if (count($named) < 3) {
            // In a list of names alone, what has a figure in it is no name.
            return $this->layout->kind === ListKind::Students && preg_match('/\d|:\s*$/', $filled[0]) === 1;
        }

        return preg_match('/[:\d]|\b(grade|class|section|homeroom|teacher|page|students?|list)\b/iu', $filled[0]) === 1;
    }

    private function student(Line $line, bool $mayAdd): ?StudentLine
    {
        $this->row->flaws($line);
        $name = $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        if (self::isNobody($name)) {
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
        $sections = $this->sections();

        return new StudentLine(
            $line->number,
            $name,
            $this->row->studentNumber(),
            $this->row->birthDate(),
            $this->row->grade(),
            $this->homeroom(),
            $sections,
            $this->row->mail(Field::Email),
            $this->guardians->all($name),
            $this->row->problems(),
            $this->label,
            $mayAdd,
            $this->row->cell(Field::AccountKey),
            $this->row->repairs(),
            $this->row->date(Field::BeginsOn),
            $this->row->date(Field::EndsOn),
        );
    }

    /** A guardian's own row says nothing of the student but who it is. */
    private function guardian(Line $line): ?StudentLine
    {
        $this->row->flaws($line);
        $own =
            $this->layout->indexOf(Field::StudentName) !== null ||
            ($this->layout->indexOf(Field::GuardianName) === null &&
                $this->layout->indexOf(Field::GuardianGiven) === null &&
                $this->layout->indexOf(Field::GuardianEmail) === null);
        $student = $own
            ? $this->row->name(Field::StudentName, null, null)
            : $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        $guardians = $own
            ? array_filter([
                $this->guardians->read(
                    Field::FullName,
                    Field::GivenName,
                    Field::FamilyName,
                    Field::Email,
                    $this->layout->indexOf(Field::Phone) !== null ? Field::Phone : Field::GuardianPhone,
                    Field::GuardianRelationship,
                    $student,
                ),
            ])
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
        $name = $this->row->name(
            $this->layout->indexOf(Field::StudentName) !== null ? Field::StudentName : Field::FullName,
            Field::GivenName,
            Field::FamilyName,
        );
        $sections = [...array_filter([$this->homeroom()]), ...$this->sections()];
        $number = $this->row->studentNumber();
        $mail = $this->row->mail(Field::Email);
        $role = StaffRoles::read($this->row->cell(Field::Role));
        if ($number === '' && $mail === '' && $name->full() === '' && $this->row->cell(Field::AccountKey) === '') {
            return null;
        }
        if ($sections === []) {
            $this->row->problem(Field::Section, 'The row names no section. Type its name, or delete the row.');
        }
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
            $this->row->date(Field::BeginsOn),
            $this->row->date(Field::EndsOn),
        );
    }

    private function staff(Line $line): ?StaffLine
    {
        $this->row->flaws($line);
        $name = $this->row->name(Field::FullName, Field::GivenName, Field::FamilyName);
        $mail = $this->row->mail(Field::Email);
        if (self::isNobody($name) && $mail === '' && !$this->row->hasProblems()) {
            return null;
        }
        if ($name->full() === '') {
            $this->row->problem(Field::FullName, 'There is no name. Type the name, or delete the row.');
        }
        if ($mail === '' && !$this->row->hasProblems()) {
            $this->row->problem(
                Field::Email,
                'Staff sign in with their e-mail address, and there is none. Type it, or delete the row.',
            );
        }

        return new StaffLine(
            $line->number,
            $name,
            $mail,
            $this->row->phone(Field::Phone),
            [...array_filter([$this->homeroom()]), ...$this->sections()],
            StaffRoles::read($this->row->cell(Field::Role)) ?? 'lead',
            $this->row->problems(),
            $this->label,
        );
    }

    private function section(Line $line): ?SectionLine
    {
        $this->row->flaws($line);
        $homeroom = $this->row->cell(Field::Section) === '' ? $this->row->cell(Field::Homeroom) : '';
        $name = $homeroom !== '' ? $homeroom : $this->row->cell(Field::Section);
        if ($name === '' && !$this->row->hasProblems() && $this->row->cell(Field::Teacher) === '') {
            return null;
        }
        if ($name === '') {
            $this->row->problem(Field::Section, 'There is no name of a section. Type it, or delete the row.');
        } elseif (mb_strlen($name) > 80) {
            $this->row->problem(Field::Section, 'The name is longer than 80 characters. Shorten it.');
        }
        if (preg_match('/^(total|sum)\b/i', $name) === 1) {
            return null;
        }

        return new SectionLine(
            $line->number,
            $name,
            $homeroom !== '',
            $this->row->grade(),
            $this->row->name(Field::Teacher, null, null),
            $this->row->mail(Field::TeacherEmail),
            $this->row->problems(),
            $this->label,
        );
    }

    private function homeroom(): string
    {
        return $this->row->cell(Field::Homeroom);
    }

    /** @return list<string> a cell may name several */
    private function sections(): array
    {
        $cell = $this->row->cellWithBreaks(Field::Section);
        $sections =
            $cell === ''
                ? []
                : array_values(
                    array_filter(
                        array_map(trim(...), preg_split('/\s*[;|\n]\s*/u', $cell) ?: []),
                        fn(string $s): bool => $s !== '',
                    ),
                );

        return $sections === [] && $this->section !== null && $this->homeroom() === '' ? [$this->section] : $sections;
    }

    private static function isNobody(PersonName $name): bool
    {
        return $name->full() === '' ||
            preg_match('/^(total|count|sum|totals|subtotal|gesamt|suma)\b/iu', $name->full()) === 1;
    }
}
