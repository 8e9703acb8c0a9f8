<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\ColumnNaming;
use Vantrel\Core\Table\DateOrder;
use Vantrel\Core\Table\FamilyParts;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\HeaderRow;
use Vantrel\Core\Table\Heading;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\NameOrder;
use Vantrel\Core\Table\ReadingAnswers;
use Vantrel\Core\Table\Sheet;
use Vantrel\Core\Table\Turned;
use Vantrel\Core\Table\UnreadableList;

/**
 * How a sheet is laid out: where its header is, what its rows are, what each column holds, which way names and dates
 * stand.
 */
final readonly class ListLayout
{
    private const SAMPLE = 200;

    /** @var array<string, int> field to its column */
    private array $at;

    /**
     * @param  int  $table place of the sheet among those of the intake
     * @param  list<Column>  $columns
     * @param  int|null  $headerRow number of the header's row in the file, null if there is none
     * @param  bool|null  $dayFirst how 03/04/2015 is read; null if nothing settles it
     */
    private function __construct(
        public int $table,
        public ?int $headerRow,
        public array $columns,
        public ListKind $kind,
        public NameOrder $names,
        public ?bool $dayFirst,
        public bool $kindSaid,
    ) {
        $at = [];
        foreach ($columns as $column) {
            // The family name itself, not what stands before it.
            if ($column->field !== null && FamilyParts::place($column->heading) === null) {
                $at[$column->field->value] ??= $column->index;
            }
        }
        foreach ($columns as $column) {
            if ($column->field !== null) {
                $at[$column->field->value] ??= $column->index;
            }
        }
        $this->at = $at;
    }

    /**
     * Works the layout out, or takes over what a person has said of it.
     *
     * @throws UnreadableList where nothing in it can be told for a person or a section
     */
    public static function of(Sheet $sheet, int $table = 0, ?ReadingAnswers $said = null, ?NameBook $book = null): self
    {
        $said ??= new ReadingAnswers();
        $book ??= new NameBook();
        $grid = $sheet->grid;
        $cure = Turned::cure($grid->lines);
        if ($cure !== null && $said->columns($table) === []) {
            throw new UnreadableList($cure);
        }
        $at = HeaderRow::at($grid->lines);
        $body = array_slice($grid->lines, $at === null ? 0 : $at + 1, self::SAMPLE);
        $columns = (new ColumnNaming($grid->width, $at === null ? null : $grid->lines[$at], $body, $book))->columns(
            $said->columns($table),
        );
        $fields = array_values(array_filter(array_map(fn(Column $c): ?Field => $c->field, $columns)));
        // "Name, Position, Room": where somebody of the staff sits says nothing of classes.
        if (in_array(Field::Role, $fields, true)) {
            $rooms = array_filter($columns, fn(Column $c): bool => $c->field === Field::Homeroom && $c->isRoom());
            $fields =
                $rooms === []
                    ? $fields
                    : array_values(array_filter($fields, fn(Field $f): bool => $f !== Field::Homeroom));
        }
        // What stands above the header says of whom the list is as well as its name does.
        $above = array_map(
            fn(Line $l): string => implode(' ', $l->cells),
            array_slice($grid->lines, 0, min((int) $at, 5)),
        );
        $title = implode(' ', [$sheet->file, $sheet->name, ...$above]);
        $saidKind = ListKind::tryFrom((string) $said->about($table, 'kind'));
        $names = array_filter(
            $columns,
            fn(Column $c): bool => in_array($c->field, [Field::FullName, Field::GivenName], true),
        );
        $called = implode(' ', array_map(fn(Column $c): string => $c->heading, $names));
        $students =
            array_filter($columns, fn(Column $c): bool => $c->field !== null && Heading::isOfStudents($c->heading)) !==
            [];
        $students = $students || self::areMostlyStudents($columns, $body);
        $kind = $saidKind ?? ListKind::of($fields, $title, $called, $students);
        // A column called "Phone" is taken for the guardian's, which in a list of staff there is none of.
        $phone = array_filter(
            $columns,
            fn(Column $c): bool => $c->field === Field::GuardianPhone &&
                $c->why !== 'as you said' &&
                isset(Heading::read($c->heading)['phone']),
        );
        if (
            $phone !== [] &&
            ($saidKind ??
                ListKind::of(
                    array_values(array_filter($fields, fn(Field $f): bool => $f !== Field::GuardianPhone)),
                    $title,
                    $called,
                    $students,
                )) ===
                ListKind::Staff
        ) {
            $kind = ListKind::Staff;
            $columns = array_map(
                fn(Column $c): Column => in_array($c, $phone, true)
                    ? new Column($c->index, $c->heading, $c->samples, Field::Phone, $c->why)
                    : $c,
                $columns,
            );
            $fields = array_values(array_filter(array_map(fn(Column $c): ?Field => $c->field, $columns)));
        }
        if ($kind === ListKind::Staff) {
            $columns = array_map(self::withoutRoom(...), $columns);
        }
        $has = fn(Field ...$some): bool => array_filter($some, fn(Field $f): bool => in_array($f, $fields, true)) !==
            [];
        $enough = match ($kind) {
            ListKind::Students, ListKind::Staff => $has(Field::FullName, Field::GivenName, Field::AccountKey),
            ListKind::Guardians => $has(Field::StudentNumber, Field::StudentName, Field::AccountKey, Field::FullName),
            ListKind::Enrollments => $has(
                Field::StudentNumber,
                Field::Email,
                Field::StudentName,
                Field::FullName,
                Field::AccountKey,
            ),
            ListKind::Sections => $has(Field::Section, Field::Homeroom),
        };
        if (!$enough) {
            throw new UnreadableList(
                $at === null
                    ? 'No column of this list looks like names, and no row looks like a header. Put a row ' .
                        'above the list that says what each column is (Name, Grade, Section, Guardian e-mail), ' .
                        'save, and drop it in again.'
                    : 'No column of this list looks like names. Rename the heading of the names to Name in row ' .
                        "{$grid->lines[$at]->number}, save, and drop it in again.",
            );
        }
        $order = match ($said->about($table, 'names')) {
            'family' => NameOrder::said(true),
            'given' => NameOrder::said(false),
            default => self::orderOf($columns, $body, $book),
        };
        $dayFirst = match ($said->about($table, 'dates')) {
            'day' => true,
            'month' => false,
            default => DateOrder::dayFirst($columns, $body),
        };

        return new self(
            $table,
            $at === null ? null : $grid->lines[$at]->number,
            $columns,
            $kind,
            $order,
            $dayFirst,
            $saidKind !== null,
        );
    }

    /**
     * Whether a column of roles says so: exports of a directory hold everybody.
     *
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     */
    private static function areMostlyStudents(array $columns, array $body): bool
    {
        foreach ($columns as $c) {
            if ($c->field === Field::Role) {
                $students = array_filter($body, fn(Line $l): bool => StaffRoles::isStudent($l->bare($c->index)));

                return count($students) * 2 > count($body);
            }
        }

        return false;
    }

    /** The room somebody of the staff sits in is no section they teach. */
    private static function withoutRoom(Column $c): Column
    {
        return $c->field === Field::Homeroom && $c->why !== 'as you said' && $c->isRoom()
            ? new Column($c->index, $c->heading, $c->samples, null, 'left out: the room of somebody is no section')
            : $c;
    }

    /** Where the field stands, or null. */
    public function indexOf(Field $field): ?int
    {
        return $this->at[$field->value] ?? null;
    }

    /** @return list<int> where the field stands, in the order in which its parts are read */
    public function indexesOf(Field $field): array
    {
        $of = array_filter($this->columns, fn(Column $c): bool => $c->field === $field);
        $place = fn(Column $c): int => match ($field) {
            Field::FamilyName => FamilyParts::place($c->heading) ?? 0,
            Field::Teacher => FamilyParts::ofTeacher($c->heading) ?? 0,
            default => 0,
        };
        usort($of, fn(Column $a, Column $b): int => $place($a) <=> $place($b));

        return array_map(fn(Column $c): int => $c->index, $of);
    }

    public function column(Field $field): ?Column
    {
        $at = $this->indexOf($field);

        return $at === null ? null : $this->columns[$at];
    }

    public function headingOf(Field $field): string
    {
        return $this->column($field)?->name() ?? '';
    }

    /** @return list<Line> the lines below the header; headers that a page break repeats left out */
    public function body(Grid $grid): array
    {
        return array_values(
            array_filter(
                $grid->lines,
                fn(Line $l): bool => $this->headerRow === null ||
                    ($l->number > $this->headerRow && !$this->repeatsHeader($l)),
            ),
        );
    }

    public function repeatsHeader(Line $line): bool
    {
        if ($this->headerRow === null || $line->kept) {
            return false;
        }
        foreach ($this->columns as $c => $column) {
            // Looked at cell by cell: nearly every row differs in the first.
            if ($column->heading !== '' && NameKey::of($line->cell($c)) !== NameKey::of($column->heading)) {
                return false;
            }
        }

        return true;
    }

    /** @return list<string> columns that hold something and were given no meaning; not those that count the rows */
    public function unread(): array
    {
        $unread = array_filter(
            $this->columns,
            fn(Column $c): bool => $c->field === null &&
                $c->samples !== [] &&
                !in_array($c->why, ['as you said', Column::COUNTS], true) &&
                !Heading::isLeftOut($c->heading),
        );

        return array_values(array_map(fn(Column $c): string => $c->name(), $unread));
    }

    /** The same for every file of one shape, which is its headings; null without a header. */
    public function shape(): ?string
    {
        return $this->headerRow === null
            ? null
            : hash(
                'sha256',
                implode('|', array_map(fn(Column $c): string => NameKey::of($c->heading), $this->columns)),
            );
    }

    /** @return list<Question> what of the layout a person has to say */
    public function questions(ReadingAnswers $said): array
    {
        $questions = [];
        $child =
            $this->column(Field::StudentNumber) ?? ($this->column(Field::BirthDate) ?? $this->column(Field::Grade));
        if ($this->kind === ListKind::Staff && !$this->kindSaid && $child !== null) {
            $questions[] = new Question(
                "t$this->table.kind",
                null,
                'Are these people of the staff, or students?',
                "The list is called or headed as one of staff, and column {$child->name()} looks like one of students.",
                [
                    new Choice('staff', 'Of the staff', 'they get accounts of staff'),
                    new Choice('students', 'Students', 'they come in as students'),
                ],
            );
        }
        foreach ($this->columns as $column) {
            if ($column->unsure === [] || $column->field === null) {
                continue;
            }
            $choices = array_map(fn(Field $f): Choice => new Choice($f->value, ucfirst($f->label()), ''), [
                $column->field,
                ...$column->unsure,
            ]);
            $questions[] = new Question(
                "t$this->table.c$column->index",
                null,
                "What does column {$column->name()} hold?",
                'It holds ' . implode(', ', array_slice($column->samples, 0, 3)) . '.',
                [...$choices, new Choice('-', 'Nothing that is needed', 'the column is left out')],
            );
        }
        if ($this->names->uncertain() && $this->names->open >= 3) {
            $full = $this->column(Field::FullName) ?? $this->column(Field::StudentName);
            $questions[] = new Question(
                "t$this->table.names",
                null,
                "Which name comes first in column {$full?->name()}?",
                'For example ' .
                    implode(', ', $full === null ? [] : $full->samples) .
                    '. Nothing in the list settles it.',
                [new Choice('given', 'The given name', ''), new Choice('family', 'The family name', '')],
            );
        }

        return $questions;
    }

    /**
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     */
    private static function orderOf(array $columns, array $body, NameBook $book): NameOrder
    {
        $index = [];
        foreach ($columns as $column) {
            if ($column->field !== null) {
                $index[$column->field->value] = $column->index;
            }
        }
        $full =
            $index['full_name'] ??
            ($index['student_name'] ?? (isset($index['family_name']) ? null : $index['given_name'] ?? null));
        if ($full === null) {
            return NameOrder::of([], $book);
        }
        $cell = fn(Line $line, string $field): string => isset($index[$field]) ? trim($line->cell($index[$field])) : '';

        return NameOrder::of(
            array_map(
                fn(Line $line): array => [
                    $line->cell($full),
                    explode(' ', NameKey::of($cell($line, 'guardian_name') . ' ' . $cell($line, 'guardian_family'))),
                    (string) strstr(mb_strtolower($cell($line, 'email')), '@', true),
                ],
                $body,
            ),
            $book,
            $columns[$full]->heading,
        );
    }
}
