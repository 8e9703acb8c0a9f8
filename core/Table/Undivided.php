<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Values\GradeLevel;

/** Lists whose columns were never told apart: all stands in the first cell, or a comma in a name cut it in two. */
final class Undivided
{
    /** Most lines, not all: titles and notes stand above and below. */
    private const MOST = 0.6;

    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>} the lines in columns, and how that was done
     */
    public static function lines(array $lines, Bands $bands): array
    {
        $single = count(array_filter($lines, fn(Line $l): bool => self::filled($l) <= 1));
        if ($single >= 0.9 * count($lines)) {
            return self::divided($lines, $bands, array_map(fn(Line $l): string => $l->cell(0), $lines));
        }
        $joined = array_map(fn(Line $l): string => implode(',', $l->cells), $lines);
        $columns = self::byBlanks($joined);
        if ($columns !== null && $columns >= 3 && self::commasAreNames($lines)) {
            return self::divided($lines, $bands, $joined);
        }

        return self::joinedNames($lines);
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<string>  $texts a line each
     * @return array{list<Line>, list<string>}
     */
    private static function divided(array $lines, Bands $bands, array $texts): array
    {
        return self::atSigns($lines, $texts, [';', "\t", '|']) ??
            (self::atBlanks($lines, $texts) ??
                (self::atSigns($lines, $texts, [' - ', ' – ', ',']) ?? self::enumerated($lines, $bands, $texts)));
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<string>  $texts
     * @param  list<string>  $signs
     * @return array{list<Line>, list<string>}|null
     */
    private static function atSigns(array $lines, array $texts, array $signs): ?array
    {
        foreach ($signs as $sign) {
            $counts = array_count_values(array_map(fn(string $t): int => substr_count($t, $sign), $texts));
            arsort($counts);
            $most = (int) array_key_first($counts);
            if ($most >= 2 && $counts[$most] >= self::MOST * count($texts) && count($texts) > 2) {
                return [
                    self::cut(
                        $lines,
                        $texts,
                        fn(string $t): array => strlen($sign) > 1 ? explode($sign, $t) : str_getcsv($t, $sign, '"', ''),
                    ),
                    [
                        'Everything stood in one column; it was divided at ' .
                        ($sign === "\t" ? 'tabs' : "“{$sign}”") .
                        '.',
                    ],
                ];
            }
        }

        return null;
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<string>  $texts
     * @return array{list<Line>, list<string>}|null
     */
    private static function atBlanks(array $lines, array $texts): ?array
    {
        if ((self::byBlanks($texts) ?? 0) >= 3) {
            return [
                self::cut($lines, $texts, fn(string $t): array => preg_split('/\s{2,}/u', trim($t)) ?: [$t]),
                ['The text was divided into columns at wide blanks. Check that no column has slipped.'],
            ];
        }

        return null;
    }

    /**
     * "1) Chidi Okafor - 3rd" between a greeting and a signature: where some lines are counted or marked, the others
     * are not people.
     *
     * @param  list<Line>  $lines
     * @param  list<string>  $texts
     * @return array{list<Line>, list<string>}
     */
    private static function enumerated(array $lines, Bands $bands, array $texts): array
    {
        $mark = '/^\s*(?:\d{1,3}[.)]|[•·–*-])\s+/u';
        $marked = array_filter($texts, fn(string $t): bool => preg_match($mark, $t) === 1);
        if ($marked === []) {
            return [$lines, []];
        }
        $left = $out = [];
        foreach ($lines as $i => $line) {
            $isHeading = $i === 0 && !isset($marked[0]) && HeaderRow::at([$line]) !== null;
            if (!isset($marked[$i]) && !$isHeading && !$line->kept) {
                $left[$line->number] = trim($texts[$i]);

                continue;
            }
            $text = (string) preg_replace($mark, '', $texts[$i]);
            $parts = preg_split('/\s+[-–—:]\s+/u', $text, 2) ?: [$text];
            $out[] = $line->with(isset($parts[1]) && GradeLevel::read($parts[1]) !== null ? $parts : [$text]);
        }

        if (count($out) < 2) {
            return [$lines, []];
        }
        foreach (array_keys($left) as $number) {
            $bands->mark($number, RowPart::Text, 'it is text around the list');
        }

        return [
            $out,
            $left === []
                ? []
                : [
                    count($left) .
                    ' lines of text around the list are left out: “' .
                    implode('”, “', array_slice($left, 0, 4)) .
                    '”' .
                    (count($left) > 4 ? ' and others' : '') .
                    '.',
                ],
        ];
    }

    /**
     * Names with a comma that nobody put in quotes: the rows have a cell more than the header, and one that begins with
     * a blank follows a name.
     *
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    private static function joinedNames(array $lines): array
    {
        $at = HeaderRow::at($lines);
        if ($at === null) {
            return [$lines, []];
        }
        $width = self::filled($lines[$at]);
        $body = array_slice($lines, $at + 1);
        $over = array_filter($body, fn(Line $l): bool => self::filled($l) === $width + 1);
        if (count($over) < 2 || count($over) < 0.5 * count($body)) {
            return [$lines, []];
        }
        foreach ($lines[$at]->cells as $c => $heading) {
            $named = array_intersect(array_keys(Heading::read($heading)), [
                'full_name',
                'student_name',
                'guardian_name',
                'teacher',
            ]);
            $split = array_filter(
                $over,
                fn(Line $l): bool => preg_match('/^\s+\p{L}/u', $l->cell($c + 1)) === 1 &&
                    preg_match('/^\p{L}[\p{L}\p{M} \'’.-]*$/u', $l->cell($c)) === 1,
            );
            if ($named === [] || count($split) < count($over)) {
                continue;
            }
            $out = [];
            foreach ($lines as $line) {
                $out[] = in_array($line, $over, true)
                    ? $line->with([
                        ...array_slice($line->cells, 0, $c),
                        $line->cell($c) . ',' . $line->cell($c + 1),
                        ...array_slice($line->cells, $c + 2),
                    ])
                    : $line;
            }

            return [$out, ["Names of column {$heading} were cut in two at their comma, and are put together again."]];
        }

        return [$lines, []];
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<string>  $texts
     * @param  callable(string): array<string|null>  $cut
     * @return list<Line>
     */
    private static function cut(array $lines, array $texts, callable $cut): array
    {
        return array_map(
            fn(Line $l, string $t): Line => $l->with(
                array_map(fn(?string $c): string => (string) $c, array_values($cut($t))),
            ),
            $lines,
            $texts,
        );
    }

    /**
     * How many columns wide blanks make of most lines; null where they do not agree.
     *
     * @param  list<string>  $texts
     */
    private static function byBlanks(array $texts): ?int
    {
        $counts = array_count_values(
            array_map(fn(string $t): int => count(preg_split('/\s{2,}/u', trim($t)) ?: []), $texts),
        );
        arsort($counts);
        $most = (int) array_key_first($counts);

        return $counts[$most] >= self::MOST * count($texts) && count($texts) > 2 ? $most : null;
    }

    /**
     * @param  list<Line>  $lines
     */
    private static function commasAreNames(array $lines): bool
    {
        return count(array_filter($lines, fn(Line $l): bool => preg_match('/\s{2,}/', trim($l->cell(0))) === 1)) >=
            self::MOST * count($lines);
    }

    private static function filled(Line $line): int
    {
        $n = 0;
        foreach ($line->cells as $c => $cell) {
            $n = trim($cell) !== '' ? $c + 1 : $n;
        }

        return $n;
    }
}
