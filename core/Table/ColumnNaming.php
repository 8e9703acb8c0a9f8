<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;

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

    /** Fields whose contents can be told for certain, so that they can speak against a heading. */
    private const TELLABLE = ['email', 'guardian_email', 'birth_date', 'grade', 'student_number', 'guardian_phone'];

    // prettier-ignore
    private const RELATIONS = [
        'mother', 'father', 'mom', 'dad', 'mum', 'parent', 'guardian', 'grandmother', 'grandfather', 'grandparent',
        'aunt', 'uncle', 'stepmother', 'stepfather', 'foster parent', 'foster', 'madre', 'padre', 'abuela', 'abuelo',
        'tia', 'tio', 'mere', 'pere', 'grand mere', 'grand pere', 'sister', 'brother', 'cha', 'me', 'mati', 'batko',
    ];

    // prettier-ignore
    private const ROLES = [
        'teacher', 'lead', 'lead teacher', 'co teacher', 'coteacher', 'assistant', 'aide', 'student', 'principal',
        'librarian', 'counselor', 'secretary', 'coordinator', 'substitute', 'nurse', 'profesor', 'docente',
    ];

    /** @var list<string> */
    private array $headings = [];

    /** @var list<list<string>> column to its cells that are not empty */
    private array $cells = [];

    /** @var list<array<string, float>> column to field to score */
    private array $scores = [];

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
                array_filter(
                    array_map(fn(Line $l): string => trim($l->cell($c)), $body),
                    fn(string $s): bool => $s !== '',
                ),
            );
        }
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

        return $this->besideGuardians($this->withoutClashes($columns));
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
                $this->cells[$c] === [] ? 'left out: it is empty' : 'left out',
            );
        }
        $byHeading = Heading::read($this->headings[$c])[$field->value] ?? 0.0;
        $rivals = [];
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

    /** @return array<string, float> */
    private function scoresOf(int $c): array
    {
        $cells = $this->cells[$c];
        $heading = $this->headings[$c];
        if (
            Heading::isLeftOut($heading) ||
            (($c === 0 || $heading !== '') && $this->isRunningNumber($cells, $heading))
        ) {
            return [];
        }
        $content = $cells === [] ? [] : $this->contents($c);
        $byHeading = Heading::read($heading);
        $scores = [];
        foreach ($byHeading as $field => $score) {
            // A heading is trusted unless the contents speak plainly against it.
            $alike = (string) preg_replace('/^guardian\d/', 'guardian', $field);
            $contradicted = $cells !== [] && in_array($alike, self::TELLABLE, true) && ($content[$alike] ?? 1.0) < 0.2;
            $scores[$field] = $score * ($contradicted ? 0.35 : 1.0) * 2 + ($content[$alike] ?? 0.0) * 0.4;
        }
        if (
            isset($byHeading['grade']) &&
            ($content['grade'] ?? 1.0) < 0.3 &&
            $this->share($cells, fn(string $s): bool => preg_match('/^\d{1,2}\s*[-\/.]?\s*\p{L}/u', $s) === 1) >= 0.5
        ) {
            // "Class: 4B" is a homeroom, whatever its heading.
            $scores['homeroom'] = 1.9;
            $scores['grade'] = 0.0;
        }
        if ($byHeading === []) {
            foreach ($content as $field => $share) {
                // An unknown heading may name anything; what is plainly an address is still one.
                $scores[$field] =
                    $share *
                        ($heading === ''
                            ? 0.9
                            : (in_array($field, ['email', 'guardian_email', 'full_name'], true)
                                ? 0.52
                                : 0.4)) -
                    $c * 0.001;
            }
        }

        return $scores;
    }

    /**
     * Which share of the cells looks like each field whose contents can be told.
     *
     * @return array<string, float>
     */
    private function contents(int $c): array
    {
        $cells = $this->cells[$c];
        $mail = $this->share($cells, fn(string $s): bool => MailAddress::read($s) !== null);
        $date = $this->share(
            $cells,
            fn(string $s): bool => preg_match('#^\d{1,4}[/.\-]\d{1,2}[/.\-]\d{1,4}#', $s) === 1 ||
                (!ctype_digit($s) && CalendarDate::read($s, true) !== null) ||
                (ctype_digit($s) && (int) $s > 35000 && (int) $s < 46000),
        );
        $grade = $this->share($cells, fn(string $s): bool => mb_strlen($s) <= 12 && GradeLevel::read($s) !== null);
        $words = array_map(fn(string $s): array => explode(' ', NameKey::of($s)), $cells);
        $letters = $this->share($cells, fn(string $s): bool => preg_match('/^\p{L}[\p{L}\p{M}\'’.\-, ]*$/u', $s) === 1);
        $many = count(array_filter($words, fn(array $w): bool => count($w) > 1)) / count($cells);
        $distinct = count(array_unique($cells)) / count($cells);
        $lean = 0.0;
        foreach ($words as $w) {
            $lean += max(-3.0, min(3.0, $this->book->givenRatherThanFamily($w[0])));
        }
        $lean /= count($cells);
        $domains = array_count_values(
            array_map(fn(string $s): string => (string) strrchr(mb_strtolower($s), '@'), $cells),
        );
        $oneDomain = max([0, ...array_values($domains)]) / count($cells);
        $number = $this->share(
            $cells,
            fn(string $s): bool => preg_match('/^[A-Z]{0,4}-?\d{3,12}(\.0)?$/i', $s) === 1 ||
                preg_match('/^\d[.,]?\d*E\+\d+$/i', $s) === 1,
        );
        $section =
            $distinct < 0.6 && count($cells) >= 4
                ? $this->share(
                        $cells,
                        fn(string $s): bool => mb_strlen($s) <= 40 &&
                            !str_contains($s, '@') &&
                            preg_match('/\p{L}/u', $s) === 1,
                    ) * 0.6
                : 0.0;
        $single = $letters * (1 - $many) * ($distinct > 0.3 ? 1.0 : 0.5);

        return [
            'email' => $mail * ($oneDomain > 0.7 ? 1.0 : 0.8),
            'guardian_email' => $mail * ($oneDomain > 0.7 ? 0.8 : 0.95),
            'birth_date' => $date,
            'begins_on' => $date * 0.5,
            'grade' => $grade,
            'full_name' => $letters * $many * ($distinct > 0.5 ? 1.0 : 0.5) * ($mail > 0.3 ? 0.0 : 1.0),
            'guardian_name' => $letters * $many * ($distinct > 0.5 ? 0.8 : 0.4),
            'given_name' => $single * (0.75 + 0.08 * $lean),
            'family_name' => $single * (0.75 - 0.08 * $lean),
            'student_number' => $number * ($distinct > 0.95 ? 1.0 : 0.3),
            'guardian_phone' =>
                $this->share(
                    $cells,
                    fn(string $s): bool => mb_strlen($s) <= 40 &&
                        preg_match('/(?<![\w.])\+?[\d(][\d ().\-\/]{5,18}\d/', $s) === 1 &&
                        preg_match_all('/\d/', $s) >= 7,
                ) *
                ($date > 0.5 ? 0.0 : 1.0) *
                ($number > 0.9 && $distinct > 0.95 ? 0.6 : 1.0),
            'section' => $section * ($single > 0.8 && $lean > 1 ? 0.3 : 1.0),
            'guardian_relationship' => $this->share(
                $cells,
                fn(string $s): bool => in_array(NameKey::of($s), self::RELATIONS, true),
            ),
            'role' => $this->share($cells, fn(string $s): bool => in_array(NameKey::of($s), self::ROLES, true)),
        ];
    }

    /**
     * A column that only counts the rows: 1, 2, 3.
     *
     * @param  list<string>  $cells
     */
    private function isRunningNumber(array $cells, string $heading): bool
    {
        if (
            count($cells) < 3 ||
            !in_array(
                NameKey::of($heading),
                ['', 'no', 'nr', 'num', 'number', 'row', 'n', 'nº', 'numero', 'item', 'line', 'count', 'stt', 'id'],
                true,
            )
        ) {
            return false;
        }
        $count = 0;
        foreach ($cells as $cell) {
            // Titles and totals between may interrupt the count, not change it.
            if (preg_match('/^\d+\.?$/', $cell) === 1 && rtrim($cell, '.') !== (string) ++$count) {
                return $count > 10 && $count >= count($cells) - 1;
            }
        }

        return $count >= 3 && $count >= count($cells) * 0.5;
    }

    /**
     * @param  list<string>  $cells
     * @param  callable(string): bool  $test
     */
    private function share(array $cells, callable $test): float
    {
        return $cells === [] ? 0.0 : count(array_filter($cells, $test)) / count($cells);
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
        if (!$has(Field::GivenName) || !$has(Field::FullName)) {
            return $columns;
        }

        return array_map(function (Column $c) use ($has): Column {
            if ($c->field === Field::GivenName && !$has(Field::FamilyName)) {
                $full = $this->fullNames();

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

            return $this->fullNames()
                ? $c
                : new Column($c->index, $c->heading, $c->samples, Field::FamilyName, 'given names stand beside it');
        }, $columns);
    }

    /** Whether the column taken for the full name holds whole names rather than family names. */
    private function fullNames(): bool
    {
        foreach ($this->scores as $c => $scores) {
            if (($scores['full_name'] ?? 0.0) >= 1.0 && $this->cells[$c] !== []) {
                return $this->share($this->cells[$c], fn(string $s): bool => str_contains($s, ' ')) > 0.7;
            }
        }

        return false;
    }
}
