<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\StudentStatus;

/**
 * Says what each column holds: every field is scored against every column, and the assignment with the highest total
 * wins.
 */
final class ColumnNaming
{
    /** Under this a column is left out. */
    private const ENOUGH = 0.5;

    /** Two fields whose scores lie closer than this are as good as each other. */
    private const MARGIN = 0.15;

    /** Words of headings that tell a Spanish list. */
    private const SPANISH = '/\b(nombres?|apellidos?|grado|grupo|alumn[oa]s?|estudiantes?|fecha|madre|padre|correo)\b/';

    /** Fields whose contents can be told for certain, so that they can speak against a heading. */
    private const TELLABLE = ['email', 'guardian_email', 'birth_date', 'grade', 'student_number', 'guardian_phone'];

    /** @var list<string> */
    private array $headings = [];

    /** @var list<list<string>> column to its cells that are not empty */
    private array $cells = [];

    /** @var list<array<string, float>> column to field to score */
    private array $scores = [];

    /** Whether nobody here knows a single heading, so that they say no more than none would. */
    private readonly bool $strange;

    /** Whether a heading says where the names are. */
    private readonly bool $named;

    /** @param  list<Line>  $body */
    public function __construct(
        private readonly int $width,
        ?Line $header,
        private readonly array $body,
        private readonly NameBook $book,
    ) {
        for ($c = 0; $c < $width; $c++) {
            $this->headings[] = trim($header?->cell($c) ?? '');
            $this->cells[] = array_values(
                array_filter(array_map(fn(Line $l): string => $l->bare($c), $body), fn(string $s): bool => $s !== ''),
            );
        }
        $this->strange =
            array_filter($this->headings, fn(string $h): bool => Heading::read($h) !== [] || Heading::isLeftOut($h)) ===
            [];
        $this->named =
            array_filter(
                $this->headings,
                fn(string $h): bool => array_intersect_key(Heading::read($h), [
                    'full_name' => 1,
                    'given_name' => 1,
                    'student_name' => 1,
                ]) !== [],
            ) !== [];
    }

    /**
     * @param  array<int, Field|null>  $said as a person said; these stand
     * @return list<Column>
     */
    public function columns(array $said): array
    {
        $fields = Field::cases();
        $grid = [];
        for ($c = 0; $c < $this->width; $c++) {
            $this->scores[$c] = $this->scoresOf($c);
            $grid[] = array_map(fn(Field $field): float => $this->scores[$c][$field->value] ?? 0.0, $fields);
        }
        foreach ($said as $c => $field) {
            $grid = array_map(
                fn(array $row, int $other): array => array_map(
                    fn(float $score, Field $candidate): float => match (true) {
                        $field === $candidate => $other === $c ? 100.0 : 0.0,
                        $other === $c => 0.0,
                        default => $score,
                    },
                    $row,
                    $fields,
                ),
                $grid,
                array_keys($grid),
            );
        }
        $columns = [];
        $assigned = Assignment::best($grid);
        foreach ($assigned as $c => $f) {
            $columns[] = $this->column(
                $c,
                $f === null || !isset($fields[$f]) ? null : $fields[$f],
                array_key_exists($c, $said),
                $said[$c] ?? null,
            );
        }

        return GuardianColumns::found(
            $this->besideGuardians(Neighbours::found($this->withoutClashes(FormColumns::found($columns)), $this->body)),
            $this->body,
        );
    }

    /**
     * "Guardian, Relationship, Email, Phone": a plain address or phone that follows a guardian's columns is the
     * guardian's.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private function besideGuardians(array $columns): array
    {
        $has = fn(Field $field): bool => array_filter($columns, fn(Column $c): bool => $c->field === $field) !== [];
        $guardian = false;
        $out = [];
        foreach ($columns as $c) {
            $instead = match (true) {
                !$guardian ||
                    $c->why === 'as you said' ||
                    preg_match('/student|pupil|child|school/i', $c->heading) === 1
                    => null,
                $c->field === Field::Email && !$has(Field::GuardianEmail) => Field::GuardianEmail,
                $c->field === Field::Phone && !$has(Field::GuardianPhone) => Field::GuardianPhone,
                default => null,
            };
            $out[] =
                $instead === null
                    ? $c
                    : new Column($c->index, $c->heading, $c->samples, $instead, 'it stands beside the guardian');
            $guardian = $instead !== null || ($c->field !== null && str_starts_with($c->field->value, 'guardian_'));
        }

        return $out;
    }

    private function column(int $c, ?Field $field, bool $isSaid, ?Field $said): Column
    {
        $samples = array_slice(array_values(array_unique($this->cells[$c])), 0, 3);
        if ($isSaid) {
            return new Column($c, $this->headings[$c], $samples, $said, 'as you said');
        }
        $score = $field === null ? 0.0 : $this->scores[$c][$field->value] ?? 0.0;
        if ($field === null || $score < self::ENOUGH) {
            return new Column(
                $c,
                $this->headings[$c],
                $samples,
                null,
                match (true) {
                    $this->cells[$c] === [] => 'left out: it is empty',
                    $this->counts($c) => Column::COUNTS,
                    default => 'left out',
                },
            );
        }
        $byHeading = Heading::read($this->headings[$c])[$field->value] ?? 0.0;
        // Second names without a heading may be anybody's; a tutor is a guardian in Spanish and a teacher in English.
        $mayTeach = match (NameKey::of($this->headings[$c])) {
            '' => true,
            'tutor' => preg_match(self::SPANISH, NameKey::of(implode(' ', $this->headings))) !== 1,
            default => false,
        };
        $rivals = $mayTeach && $field === Field::GuardianName ? [Field::Teacher] : [];
        if ($byHeading === 0.0) {
            foreach ($this->scores[$c] as $other => $rival) {
                if (
                    $other !== $field->value &&
                    $rival >= self::ENOUGH &&
                    $score - $rival < self::MARGIN &&
                    in_array($other, ['given_name', 'family_name', 'email', 'guardian_email'], true)
                ) {
                    $rivals[] = Field::from($other);
                }
            }
        }

        return new Column(
            $c,
            $this->headings[$c],
            $samples,
            $field,
            match (true) {
                $byHeading >= 1.0 => 'by its heading',
                $byHeading > 0.0 => 'its heading is close',
                default => 'by what is in it',
            },
            $rivals,
        );
    }

    /** Whether the column only counts the rows. */
    private function counts(int $c): bool
    {
        $heading = $this->headings[$c] ?? '';

        return ($c === 0 || $heading !== '') && ColumnContents::isRunningNumber($this->cells[$c] ?? [], $heading);
    }

    /** @return array<string, float> */
    private function scoresOf(int $c): array
    {
        $cells = $this->cells[$c];
        $heading = $this->headings[$c];
        if (StudentStatus::isHeading($heading) && $cells !== []) {
            // "Status" may be of anything, and "Left" a date: what it says tells.
            $dates = ColumnContents::share($cells, CalendarDate::looksLikeOne(...));
            $states = ColumnContents::share($cells, fn(string $s): bool => StudentStatus::read($s, $heading) !== null);

            return match (true) {
                $states >= 0.5 => ['status' => 2.0],
                $dates >= 0.5 => [StudentStatus::asksForLeaving($heading) ? 'ends_on' : 'begins_on' => 2.0],
                default => [],
            };
        }
        if (Heading::isLeftOut($heading) || $this->counts($c)) {
            return [];
        }
        $content = $cells === [] ? [] : ColumnContents::shares($cells, $this->book);
        $relations = ($content['guardian_relationship'] ?? 0.0) >= 0.5;
        $byHeading = Heading::read($heading);
        $scores = [];
        foreach ($byHeading as $field => $score) {
            // A heading is trusted unless the contents speak plainly against it.
            $alike = (string) preg_replace('/^guardian\d/', 'guardian', $field);
            $contradicted = $cells !== [] && in_array($alike, self::TELLABLE, true) && ($content[$alike] ?? 1.0) < 0.2;
            $scores[$field] = $score * ($contradicted ? 0.35 : 1.0) * 2 + ($content[$alike] ?? 0.0) * 0.4;
        }
        // "Students: 24" counts them, and names nobody; "Section 1: Y" says yes to it, and is called otherwise.
        $isNone = match (true) {
            ColumnContents::share($cells, ctype_digit(...)) > 0.8 => '/name$|_given$|_family$/',
            ColumnContents::areMarks($cells) => '/name$|_given$|_family$|^section$|^homeroom$|^teacher$/',
            default => null,
        };
        if ($isNone !== null) {
            $scores = array_filter($scores, fn(string $f): bool => preg_match($isNone, $f) !== 1, ARRAY_FILTER_USE_KEY);
        }
        if ($relations) {
            // "Guardian: Mother" says who, not what they are called.
            $scores = array_filter($scores, fn(string $f): bool => !str_ends_with($f, 'name'), ARRAY_FILTER_USE_KEY);
        }
        if (
            isset($byHeading['grade']) &&
            ($content['grade'] ?? 1.0) < 0.3 &&
            ColumnContents::share(
                $cells,
                fn(string $s): bool => preg_match('/^\d{1,2}\s*[-\/.]?\s*\p{L}/u', $s) === 1 &&
                    GradeLevel::read($s) === null,
            ) >= 0.5
        ) {
            // "Class: 4B" is a homeroom, whatever its heading.
            $scores['homeroom'] = 1.9;
            $scores['grade'] = 0.0;
        }
        if ($byHeading === []) {
            foreach ($content as $field => $share) {
                $scores[$field] = $share * $this->weightOf($field, $heading) - $c * 0.001;
            }
        }

        return $scores;
    }

    /** How much what is in a column says of it where its heading is none that is known. */
    private function weightOf(string $field, string $heading): float
    {
        return match (true) {
            $heading === '' || $this->strange => 0.9,
            // An unknown heading may name anything; what is plainly an address is still one, and somebody's names
            // stand somewhere.
            in_array($field, ['email', 'guardian_email', 'guardian_relationship'], true) => 0.52,
            $field === 'guardian_phone' &&
                preg_match('/^(home|work|cell|mobile|day|daytime|evening|main)$/i', $heading) === 1
                => 0.52,
            in_array($field, ['full_name', 'given_name', 'family_name'], true) && !$this->named => 0.9,
            default => 0.4,
        };
    }

    /**
     * Given and family name together leave no room for a full name: the full name gives way, unless it holds family
     * names only.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private function withoutClashes(array $columns): array
    {
        $has = fn(Field $field): bool => array_filter($columns, fn(Column $c): bool => $c->field === $field) !== [];
        if ($has(Field::FamilyName) && !$has(Field::GivenName)) {
            // "Family | Child", "Last name | Name": what stands beside the family name is the other half of it.
            return array_map(
                fn(Column $c): Column => in_array($c->field, [Field::FullName, Field::StudentName], true) &&
                $c->why !== 'as you said' &&
                ColumnContents::share($this->cells[$c->index], fn(string $s): bool => str_contains($s, ',')) < 0.2
                    ? new Column($c->index, $c->heading, $c->samples, Field::GivenName, 'family names stand beside it')
                    : $c,
                $columns,
            );
        }
        if (!$has(Field::GivenName) || !$has(Field::FullName)) {
            return $columns;
        }

        $full = false;
        foreach ($columns as $column) {
            $full = $column->field === Field::FullName ? $this->fullNames($column->index) : $full;
        }

        return array_map(function (Column $c) use ($has, $full): Column {
            if ($c->field === Field::GivenName && !$has(Field::FamilyName)) {
                return $full
                    ? new Column($c->index, $c->heading, $c->samples, null, 'left out: the whole name is there')
                    : $c;
            }
            if ($c->field !== Field::FullName) {
                return $c;
            }
            if ($has(Field::FamilyName)) {
                return new Column(
                    $c->index,
                    $c->heading,
                    $c->samples,
                    null,
                    'left out: given and family name are there',
                );
            }

            return $full
                ? $c
                : new Column($c->index, $c->heading, $c->samples, Field::FamilyName, 'given names stand beside it');
        }, $columns);
    }

    /** Whether the column taken for the full name holds whole names rather than family names. */
    private function fullNames(int $c): bool
    {
        return ColumnContents::share($this->cells[$c], fn(string $s): bool => str_contains($s, ' ')) > 0.7;
    }
}
