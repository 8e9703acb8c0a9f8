<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\GradeLevel;

/**
 * Lists under each other, each below a heading of its own: "Homeroom: 3A   Teacher: Ms. Vale". What the headings say
 * becomes columns of the rows below them.
 */
final class Blocks
{
    /** What a heading between rows can say of the rows below it. */
    public const SAID = ['homeroom', 'section', 'teacher', 'grade', 'school'];

    private const TITLED = '/^(?:mr|mrs|ms|miss|mx|dr|sr|sra|mme|mlle|frau|herr)\b\.?\s+\p{L}[\p{L} .\'’-]{1,40}$/iu';

    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    public static function withHeadings(array $lines, Bands $marks): array
    {
        $at = HeaderRow::at($lines);
        if ($at === null) {
            return [$lines, []];
        }
        $width = max([0, ...array_map(fn(Line $l): int => count($l->cells), $lines)]);
        $bands = [];
        foreach ($lines as $i => $line) {
            $said = $line->kept || $i === $at ? [] : self::said($line);
            if ($said === [] && !$line->kept && $i !== $at) {
                $said = self::saidInCells($line, $lines[$at]);
            }
            if ($said !== []) {
                $bands[$i] = $said;
            }
        }
        $below = array_filter(array_keys($bands), fn(int $i): bool => $i > $at);
        // Above the header alone they are the title of the whole list, and say the same of all its rows: if they do.
        $all = array_map(fn(array $one): string => NameKey::of($one[0]), array_merge(...array_values($bands)));
        if ($bands === [] || ($below === [] && count($all) > count(array_unique($all)))) {
            return [$lines, []];
        }
        $labels = [];
        foreach ($bands as $said) {
            foreach ($said as [$label]) {
                $labels[NameKey::of($label)] ??= $label;
            }
        }
        $known = array_map(NameKey::of(...), $lines[$at]->cells);
        $labels = array_filter($labels, fn(string $key): bool => !in_array($key, $known, true), ARRAY_FILTER_USE_KEY);
        if ($labels === []) {
            return [$lines, []];
        }
        $now = array_fill_keys(array_keys($labels), '');
        $out = [];
        foreach ($lines as $i => $line) {
            foreach ($bands[$i] ?? [] as [$label, $value]) {
                if (isset($now[NameKey::of($label)])) {
                    $now[NameKey::of($label)] = $value;
                }
            }
            if (isset($bands[$i])) {
                $marks->mark($line->number, RowPart::Heading, 'it says of which class the rows below it are');

                continue;
            }
            if ($i !== $at && self::repeats($line, $lines[$at])) {
                $marks->mark($line->number, RowPart::Repeated, 'it repeats the header');

                continue;
            }
            $header = $i === $at;
            $places = array_map($line->place(...), range(0, $width - 1));
            $out[] = $line->with(
                [...array_pad($line->cells, $width, ''), ...array_values($header ? $labels : $now)],
                null,
                [...$places, ...array_fill(0, count($labels), -1)],
            );
        }

        return [
            $out,
            [
                $below === []
                    ? RowNumbers::sentence(
                        array_map(fn(int $i): int => $lines[$i]->number, array_keys($bands)),
                        '',
                        'says what counts for all rows below it.',
                        'say what counts for all rows below them.',
                    )
                    : count($bands) . ' headings between the rows say which class the rows below them are of.',
            ],
        ];
    }

    /** @return list<array{string, string}> label and value of each thing a heading says */
    public static function said(Line $line): array
    {
        $filled = array_values(array_filter(array_map(trim(...), $line->cells), fn(string $c): bool => $c !== ''));
        if (count($filled) === 1 && !str_contains($filled[0], ':')) {
            return self::saidBare($filled[0]);
        }
        // A row of data may hold "Grade: 5" in one of its cells; a heading holds nothing else.
        if ($filled === [] || count($filled) > 4 || preg_grep('/:/', $filled) !== $filled) {
            return [];
        }
        $text = implode('   ', $filled);
        if (
            preg_match_all(
                '/(\p{L}[\p{L} .]{1,24}?)\s*:\s*(.+?)(?=\s{2,}|[;,|]\s*\p{L}[\p{L} .]{1,24}:|$)/u',
                $text,
                $m,
                PREG_SET_ORDER,
            ) < 1
        ) {
            return [];
        }
        $said = [];
        foreach ($m as [, $label, $value]) {
            $fields = array_intersect(array_keys(Heading::read($label)), self::SAID);
            if ($fields !== [] && trim($value) !== '') {
                $said[] = [trim($label), trim($value)];
            }
        }

        return $said;
    }

    /**
     * "Ms. Vale", "Room 12" and "Grade 3" in cells beside each other, under headings of something else.
     *
     * @return list<array{string, string}>
     */
    private static function saidInCells(Line $line, Line $header): array
    {
        $filled = array_filter(array_map(trim(...), $line->cells), fn(string $c): bool => $c !== '');
        $said = [];
        foreach (count($filled) > 1 && count($filled) <= 4 ? $filled : [] as $c => $cell) {
            $one = preg_match(self::TITLED, $cell) === 1 ? [['Teacher', $cell]] : self::saidBare($cell);
            if ($one === [] || array_intersect(array_keys(Heading::read($header->cell($c))), self::SAID) !== []) {
                return [];
            }
            $said[] = $one[0];
        }

        return count($said) === count(array_unique(array_column($said, 0))) ? $said : [];
    }

    /**
     * "Grade 3", "Room 12", "Kindergarten", alone in their row.
     *
     * @return list<array{string, string}>
     */
    private static function saidBare(string $text): array
    {
        if (
            preg_match(
                '/^(homeroom|home ?room|room|class|section|form|klasse|classe|clase|aula|' .
                    'salle)\s+([\p{L}\d][\p{L}\d.\-]{0,7})$/iu',
                $text,
                $m,
            ) === 1 &&
            preg_match('/\d/', $m[2]) === 1
        ) {
            return [[$m[1], $m[2]]];
        }

        return preg_match('/\p{L}/u', $text) === 1 && GradeLevel::read($text) !== null ? [['Grade', $text]] : [];
    }

    private static function repeats(Line $line, Line $header): bool
    {
        return array_map(NameKey::of(...), array_map(trim(...), $line->cells)) ===
            array_map(NameKey::of(...), array_map(trim(...), $header->cells));
    }
}
