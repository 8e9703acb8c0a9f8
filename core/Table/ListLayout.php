<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\MailAddress;

/** How a list is laid out: where its header is, what each column holds, whether names are family first. */
final readonly class ListLayout
{
    private const HEADER_ROWS = 30;

    private const SAMPLE = 200;

    /**
     * @param  list<Column>  $columns
     * @param  int|null  $headerRow number of the header's row in the file, null if there is none
     */
    public function __construct(public ?int $headerRow, public array $columns, public bool $familyFirst)
    {
    }

    /**
     * Works the layout out, or takes over what a person has said of it.
     *
     * @param  array<int, Field|null>  $named column to field, as a person set it; these stand
     * @param  bool|null  $familyFirst as a person set it
     *
     * @throws UnreadableList where no column can be a name
     */
    public static function of(Grid $grid, array $named = [], ?bool $familyFirst = null): self
    {
        $at = self::headerAt($grid);
        $body = array_slice($grid->lines, $at === null ? 0 : $at + 1, self::SAMPLE);
        $columns = self::nameColumns($grid, $at === null ? null : $grid->lines[$at], $body, $named);
        $fields = array_map(fn (Column $c): ?Field => $c->field, $columns);
        if (! in_array(Field::FullName, $fields, true) && ! in_array(Field::GivenName, $fields, true)) {
            throw new UnreadableList($at === null
                ? 'No column of this list looks like names, and no row looks like a header. Put a row above the list that says what each column is (Name, Grade, Section, Guardian e-mail), save, and drop it in again.'
                : "No column of this list looks like names. Rename the heading of the names to Name in row {$grid->lines[$at]->number}, save, and drop it in again.");
        }

        return new self($at === null ? null : $grid->lines[$at]->number, $columns, $familyFirst ?? self::guessFamilyFirst($columns, $body));
    }

    /** Where the field stands, or null. */
    public function indexOf(Field $field): ?int
    {
        foreach ($this->columns as $column) {
            if ($column->field === $field) {
                return $column->index;
            }
        }

        return null;
    }

    /** @return list<Line> the lines below the header */
    public function body(Grid $grid): array
    {
        return array_values(array_filter($grid->lines, fn (Line $line): bool => $this->headerRow === null || $line->number > $this->headerRow));
    }

    /** Place of the header among the lines: at least two cells, or half of them, are known headings, and none is data. */
    private static function headerAt(Grid $grid): ?int
    {
        $best = null;
        $bestScore = 0.0;
        foreach (array_slice($grid->lines, 0, self::HEADER_ROWS) as $i => $line) {
            $filled = $known = $data = 0;
            foreach ($line->cells as $cell) {
                if (trim($cell) === '') {
                    continue;
                }
                $filled++;
                $known += self::bestHeading(NameKey::of($cell)) >= 0.8 ? 1 : 0;
                $data += preg_match('/@|^\d+([.,]\d+)?$|^\d{1,4}[\/.\-]\d{1,2}[\/.\-]\d{1,4}$/', trim($cell));
            }
            if ($filled === 0 || $data > 0) {
                continue;
            }
            $score = $known / $filled + min($known, 10) / 10;
            if (($known >= 2 || ($known === 1 && $filled === 1)) && $known * 2 >= $filled && $score > $bestScore) {
                [$best, $bestScore] = [$i, $score];
            }
        }

        return $best;
    }

    private static function bestHeading(string $key): float
    {
        $best = 0.0;
        foreach (Field::cases() as $field) {
            $best = max($best, self::headingScore($key, $field));
        }

        return $best;
    }

    private static function headingScore(string $key, Field $field): float
    {
        if ($key === '') {
            return 0.0;
        }
        $best = 0.0;
        foreach ($field->headings() as $heading) {
            if ($key === $heading) {
                return 1.0;
            }
            $length = max(strlen($key), strlen($heading));
            if ($length >= 5 && levenshtein($key, $heading) <= intdiv($length, 6)) {
                $best = max($best, 0.85);
            }
        }

        return $best;
    }

    /**
     * @param  list<Line>  $body
     * @param  array<int, Field|null>  $named
     * @return list<Column>
     */
    private static function nameColumns(Grid $grid, ?Line $header, array $body, array $named): array
    {
        $fields = Field::cases();
        $headings = $samples = $scores = $reasons = [];
        for ($c = 0; $c < $grid->width; $c++) {
            $headings[$c] = trim($header?->cell($c) ?? '');
            $cells = array_values(array_filter(array_map(fn (Line $l): string => trim($l->cell($c)), $body), fn (string $s): bool => $s !== ''));
            $samples[$c] = array_slice(array_values(array_unique($cells)), 0, 3);
            $key = NameKey::of($headings[$c]);
            $shares = self::contentShares($cells);
            foreach ($fields as $f => $field) {
                $byHeading = self::headingScore($key, $field);
                $byContent = $shares[$field->value] ?? 0.0;
                // A heading that names the field is trusted unless the contents speak plainly against it.
                $contradicted = $cells !== [] && $byHeading > 0 && isset($shares[$field->value]) && $byContent < 0.2;
                $scores[$c][$f] = $byHeading * ($contradicted ? 0.4 : 1.0) * 2 + ($byHeading > 0 || $key === '' || self::bestHeading($key) < 0.8 ? $byContent * ($headings[$c] === '' ? 0.9 : 0.4) : 0.0);
                $reasons[$c][$f] = $byHeading >= 1.0 ? 'by its heading' : ($byHeading > 0 ? 'its heading is close' : 'by what is in it');
            }
        }
        foreach ($named as $c => $field) {
            if (! isset($scores[$c])) {
                continue;
            }
            foreach ($fields as $f => $candidate) {
                foreach ($scores as $other => $row) {
                    if ($field === $candidate) {
                        $scores[$other][$f] = $other === $c ? 100.0 : 0.0;
                    } elseif ($other === $c) {
                        $scores[$c][$f] = 0.0;
                    }
                }
            }
        }
        $scores = array_values(array_map(fn (array $row): array => array_values($row), $scores));
        $columns = [];
        foreach (Assignment::best($scores) as $c => $f) {
            $score = $f === null || ! isset($fields[$f]) ? 0.0 : $scores[$c][$f];
            $said = array_key_exists($c, $named);
            $field = $said ? $named[$c] : ($score >= 0.5 ? $fields[(int) $f] : null);
            $columns[] = new Column($c, $headings[$c], $samples[$c], $field, $said ? 'as you said' : ($field === null ? 'left out' : $reasons[$c][(int) $f]));
        }

        return self::withoutClashes($columns);
    }

    /**
     * Given and family name together leave no room for a full name: the full name gives way.
     *
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    private static function withoutClashes(array $columns): array
    {
        $fields = array_map(fn (Column $c): ?Field => $c->field, $columns);
        if (! in_array(Field::GivenName, $fields, true) || ! in_array(Field::FamilyName, $fields, true)) {
            return $columns;
        }

        return array_map(fn (Column $c): Column => $c->field === Field::FullName
            ? new Column($c->index, $c->heading, $c->samples, null, 'left out: given and family name are there')
            : $c, $columns);
    }

    /**
     * Which share of the cells looks like each field whose contents can be told.
     *
     * @param  list<string>  $cells
     * @return array<string, float>
     */
    private static function contentShares(array $cells): array
    {
        if ($cells === []) {
            return [];
        }
        $counts = ['email' => 0, 'birth_date' => 0, 'grade' => 0, 'full_name' => 0, 'guardian_phone' => 0, 'student_number' => 0];
        foreach ($cells as $cell) {
            $counts['email'] += MailAddress::read($cell) === null ? 0 : 1;
            $counts['birth_date'] += preg_match('#^\d{1,4}[/.\-]\d{1,2}[/.\-]\d{1,4}#', $cell) === 1 || (CalendarDate::read($cell, true) !== null && (int) $cell < 46000) ? 1 : 0;
            $counts['grade'] += strlen($cell) <= 12 && GradeLevel::read($cell) !== null ? 1 : 0;
            $counts['full_name'] += preg_match('/^[\p{L}\p{M}\'’.\-]{2,}(, ?| )[\p{L}\p{M}\'’. \-]+$/u', $cell) === 1 ? 1 : 0;
            $counts['guardian_phone'] += preg_match('/^\+?[\d ().\-]{7,20}$/', $cell) === 1 && preg_match_all('/\d/', $cell) >= 7 ? 1 : 0;
            $counts['student_number'] += preg_match('/^[A-Z]{0,3}\d{4,10}$/', $cell);
        }
        $shares = array_map(fn (int $count): float => $count / count($cells), $counts);
        $shares['student_number'] *= count(array_unique($cells)) / count($cells) > 0.95 ? 1.0 : 0.0;
        $shares['guardian_email'] = $shares['email'] * 0.99;
        $shares['guardian_name'] = $shares['full_name'] * 0.8;

        return $shares;
    }

    /**
     * Full names without a comma: family first if the first words recur more than the last words do, since family names
     * repeat among siblings and neighbours. A comma settles each name by itself.
     *
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     */
    private static function guessFamilyFirst(array $columns, array $body): bool
    {
        foreach ($columns as $column) {
            if ($column->field !== Field::FullName) {
                continue;
            }
            if (preg_match('/(last|family|surname|apellido).*(first|given|nombre)/i', $column->heading) === 1) {
                return true;
            }
            $guardian = self::guardianFamilies($columns, $body);
            $first = $last = 0;
            foreach ($body as $i => $line) {
                $words = explode(' ', NameKey::of($line->cell($column->index)));
                if (count($words) < 2 || str_contains($line->cell($column->index), ',') || ! isset($guardian[$i])) {
                    continue;
                }
                $first += in_array($words[0], $guardian[$i], true) ? 1 : 0;
                $last += in_array($words[count($words) - 1], $guardian[$i], true) ? 1 : 0;
            }

            return $first > $last;
        }

        return false;
    }

    /**
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     * @return array<int, list<string>> words of the guardian's name by line
     */
    private static function guardianFamilies(array $columns, array $body): array
    {
        foreach ($columns as $column) {
            if ($column->field === Field::GuardianName) {
                return array_map(fn (Line $l): array => explode(' ', NameKey::of($l->cell($column->index))), $body);
            }
        }

        return [];
    }
}
