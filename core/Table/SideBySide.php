<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Lists that stand beside each other under the same headings, each with its own title above. */
final class SideBySide
{
    /**
     * @param  list<Line>  $lines
     * @param list<int>|null $said columns in which lists begin, as somebody said; none for one list, null where nobody
     *     said anything
     * @return array<int|string, list<Line>> title of each list, or its place, to its lines; all lines where there is
     *     one list
     */
    public static function tables(array $lines, ?array $said, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        $above = $at === null ? null : $lines[$at - 1] ?? null;
        // "Name, E-mail" twice under "Student" and "Parent" is one list with a header of two rows.
        $groups = $above !== null && array_filter($above->cells, Heading::isOfSomebody(...)) !== [];
        $parts = match (true) {
            $said !== null => self::from($said, max([0, ...array_map(fn(Line $l): int => count($l->cells), $lines)])),
            $at === null || $groups => [],
            default => self::parts($lines[$at]),
        };
        if (count($parts) < 2) {
            $again = $said !== null || $at === null || $groups ? [] : self::namesAgain($lines, $at);

            return ['' => $again === [] ? $lines : self::asFamilies($lines, (int) $at, $again)];
        }
        $at ??= 0;
        if ($said === null && count($parts) <= 3 && self::areFamilies($lines, $at, $parts)) {
            return ['' => self::asFamilies($lines, $at, $parts)];
        }
        foreach (array_slice($lines, 0, $at) as $line) {
            $bands->mark($line->number, RowPart::Title, 'it stands above the lists');
        }
        $titled = [];
        $tables = [];
        foreach ($parts as $n => [$from, $to]) {
            $title = '';
            $places = range($from, $to);
            foreach (array_slice($lines, 0, $at) as $row) {
                $own = array_values(
                    array_filter(
                        array_map(trim(...), array_slice($row->cells, $from, $to - $from + 1)),
                        fn(string $c): bool => $c !== '',
                    ),
                );
                if (count($own) === 1) {
                    $title = $own[0];
                    $titled[$n] = $row->number;
                }
            }
            $tables[isset($tables[$title]) || $title === '' ? 'list ' . ($n + 1) : $title] = array_values(
                array_filter(
                    array_map(
                        fn(Line $l): Line => $l->with(
                            array_pad(array_slice($l->cells, $from, $to - $from + 1), $to - $from + 1, ''),
                            self::own($l->flaws, $from, $to),
                            $places,
                        ),
                        array_slice($lines, $at),
                    ),
                    fn(Line $l): bool => !$l->isBlank(),
                ),
            );
        }

        foreach ($titled as $number) {
            $bands->mark($number, RowPart::Heading, 'it says what the lists below it are called');
        }

        return $tables;
    }

    /**
     * Whether those beside each other in a row are of one family: "Name, Phone, Name, Phone" may be a child and a
     * parent. Of two classes beside each other hardly anybody meets a namesake.
     *
     * @param  list<Line>  $lines
     * @param  list<array{int, int}>  $parts
     */
    private static function areFamilies(array $lines, int $at, array $parts): bool
    {
        $own = array_slice($lines[$at]->cells, $parts[0][0], $parts[0][1] - $parts[0][0] + 1);
        // What a child has and a parent does not.
        $ofChildren = ['birth_date' => 1, 'grade' => 1, 'student_number' => 1, 'homeroom' => 1, 'section' => 1];
        foreach ($own as $heading) {
            if (array_intersect_key(Heading::read($heading), $ofChildren) !== []) {
                return false;
            }
        }
        $names = array_keys(
            array_filter(
                $own,
                fn(string $h): bool => array_intersect_key(Heading::read($h), [
                    'full_name' => 1,
                    'family_name' => 1,
                ]) !== [],
            ),
        );
        $rows = $alike = 0;
        foreach ($names === [] ? [] : array_slice($lines, $at + 1) as $line) {
            $words = array_map(
                fn(array $part): array => explode(
                    ' ',
                    NameKey::of(implode(' ', array_map(fn(int $c): string => $line->cell($part[0] + $c), $names))),
                ),
                array_slice($parts, 0, 2),
            );
            if ($words[0] !== [''] && $words[1] !== ['']) {
                $rows++;
                $alike += array_intersect($words[0], $words[1]) !== [] ? 1 : 0;
            }
        }

        return $rows >= 2 && $alike * 2 >= $rows;
    }

    /**
     * From where to where each person of a row goes, in a list whose headings of names come again: "First, Last, Grade,
     * First, Last, E-mail". None where those who come later are no relatives, or have what only children have.
     *
     * @param  list<Line>  $lines
     * @return list<array{int, int}>
     */
    private static function namesAgain(array $lines, int $at): array
    {
        $reads = fn(int $c, string ...$fields): bool => array_intersect(
            array_keys(Heading::read($lines[$at]->cell($c))),
            $fields,
        ) !== [];
        $columns = array_keys($lines[$at]->cells);
        $names = array_values(
            array_filter($columns, fn(int $c): bool => $reads($c, 'full_name', 'given_name', 'family_name')),
        );
        $key = fn(int $c): string => mb_strtolower(trim($lines[$at]->cell($c)));
        $starts = array_values(array_filter($names, fn(int $c): bool => $key($c) === $key($names[0])));
        if (count($starts) < 2 || count($starts) > 3) {
            return [];
        }
        $parts = self::from(array_slice($starts, 1), count($columns));
        foreach (array_slice($parts, 1) as [$from, $to]) {
            foreach (range($from, $to) as $c) {
                if ($reads($c, 'birth_date', 'grade', 'student_number', 'homeroom', 'section')) {
                    return [];
                }
            }
        }
        $words = fn(Line $line, array $part): array => explode(
            ' ',
            NameKey::of(
                implode(
                    ' ',
                    array_map(
                        $line->cell(...),
                        array_filter($names, fn(int $c): bool => $c >= $part[0] && $c <= $part[1]),
                    ),
                ),
            ),
        );
        $rows = $alike = 0;
        foreach (array_slice($lines, $at + 1) as $line) {
            [$child, $other] = [$words($line, $parts[0]), $words($line, $parts[1])];
            if ($child !== [''] && $other !== ['']) {
                $rows++;
                $alike += array_intersect($child, $other) !== [] ? 1 : 0;
            }
        }

        return $rows >= 2 && $alike * 2 >= $rows ? $parts : [];
    }

    /**
     * One list, in which whoever stands beside the first is said to be a guardian.
     *
     * @param  list<Line>  $lines
     * @param  list<array{int, int}>  $parts
     * @return list<Line>
     */
    private static function asFamilies(array $lines, int $at, array $parts): array
    {
        $cells = $lines[$at]->cells;
        foreach (array_slice($parts, 1) as $n => [$from, $to]) {
            for ($c = $from; $c <= $to; $c++) {
                $cells[$c] = trim($cells[$c] ?? '') === '' ? '' : 'Guardian ' . ($n + 1) . " $cells[$c]";
            }
        }
        $lines[$at] = $lines[$at]->with(array_values($cells));

        return array_values($lines);
    }

    /**
     * @param  list<int>  $starts
     * @return list<array{int, int}>
     */
    private static function from(array $starts, int $width): array
    {
        $starts = array_values(array_unique([0, ...array_filter($starts, fn(int $c): bool => $c < $width)]));
        sort($starts);

        return array_map(fn(int $i): array => [$starts[$i], ($starts[$i + 1] ?? $width) - 1], array_keys($starts));
    }

    /**
     * From where to where each list goes: the same headings again and again, blank columns between or not.
     *
     * @return list<array{int, int}>
     */
    private static function parts(Line $header): array
    {
        // By their own words: "Student #" and "Student" are two headings of one list.
        $keys = array_map(fn(string $c): string => mb_strtolower(trim($c)), $header->cells);
        $filled = array_keys(array_filter($keys, fn(string $k): bool => $k !== ''));
        $n = count($filled);
        for ($size = 2; $size * 2 <= $n; $size++) {
            if ($n % $size !== 0) {
                continue;
            }
            $groups = array_chunk($filled, $size);
            $first = array_map(fn(int $c): string => $keys[$c], $groups[0]);
            $same = array_filter(
                $groups,
                fn(array $g): bool => array_map(fn(int $c): string => $keys[$c], $g) === $first,
            );
            if (count($same) === count($groups) && count(array_unique($first)) === $size) {
                return array_map(fn(array $g): array => [$g[0], $g[count($g) - 1]], $groups);
            }
        }

        return [];
    }

    /**
     * @param  array<int, string>  $flaws
     * @return array<int, string>
     */
    private static function own(array $flaws, int $from, int $to): array
    {
        $own = [];
        foreach ($flaws as $c => $flaw) {
            if ($c >= $from && $c <= $to) {
                $own[$c - $from] = $flaw;
            }
        }

        return $own;
    }
}
