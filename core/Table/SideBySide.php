<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

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
            return ['' => $lines];
        }
        $at ??= 0;
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
