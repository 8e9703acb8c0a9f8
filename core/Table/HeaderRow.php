<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Where the header of a table stands. */
final class HeaderRow
{
    private const LOOK_THROUGH = 30;

    /**
     * Place of the header among the lines: at least two cells, or a third of them, are known headings, and none is
     * data as the cells below it are.
     *
     * @param  list<Line>  $lines
     */
    public static function at(array $lines): ?int
    {
        $said = array_filter($lines, fn(Line $l): bool => $l->header === true);
        if ($said !== []) {
            return array_key_first($said);
        }
        $best = null;
        $bestScore = 0.0;
        $first = array_slice($lines, 0, self::LOOK_THROUGH);
        $width = max([1, ...array_map(self::filled(...), $first)]);
        foreach ($first as $i => $line) {
            if ($line->header === false || $line->kept) {
                continue;
            }
            // A header reaches over the table; a row of it may leave cells out.
            $score = self::score($line, array_slice($lines, $i + 1, 20)) * (0.7 + (0.3 * self::filled($line)) / $width);
            if ($score > $bestScore) {
                [$best, $bestScore] = [$i, $score];
            }
        }

        return $best ?? self::byContrast($lines, $width);
    }

    /**
     * Headings that nobody here knows, or one of many: words in a row that reaches over the table, above columns most
     * of whose cells hold figures or addresses.
     *
     * @param  list<Line>  $lines
     */
    private static function byContrast(array $lines, int $width): ?int
    {
        $at = null;
        foreach (array_slice($lines, 0, 5) as $i => $line) {
            if (self::filled($line) >= max(3, 0.7 * $width)) {
                $at = $i;
                break;
            }
        }
        $body = $at === null ? [] : array_slice($lines, $at + 1, 50);
        if ($at === null || count($body) < 2 || $lines[$at]->header === false || $lines[$at]->kept) {
            return null;
        }
        $columns = $known = 0;
        foreach ($lines[$at]->cells as $c => $heading) {
            $heading = trim($heading);
            // "Period 1" counts columns; "Algebra 1" below another "Algebra 1" does not.
            if (preg_match('/[\d@]/', $heading) === 1 && !self::counts($heading, $lines[$at])) {
                return null;
            }
            $cells = array_filter(
                array_map(fn(Line $l): string => $l->bare($c), $body),
                fn(string $s): bool => $s !== '',
            );
            $told = array_filter($cells, fn(string $cell): bool => preg_match('/[\d@]/', $cell) === 1);
            $columns += $cells !== [] && count($told) >= 0.8 * count($cells) ? 1 : 0;
            $known += max([0.0, ...array_values(Heading::read($heading))]) >= 1.0 ? 1 : 0;
        }

        return $columns + min($known, 1) >= 2 ? $at : null;
    }

    /** Whether a heading is one of several that differ by their number alone: "Period 1", "Period 2". */
    private static function counts(string $heading, Line $line): bool
    {
        $word = fn(string $s): string => (string) preg_replace('/[\s.#]*\d{1,2}$/', '', trim($s));
        $own = $word($heading);

        return $own !== '' &&
            preg_match('/[\d@]/', $own) !== 1 &&
            count(array_filter($line->cells, fn(string $c): bool => $word($c) === $own && trim($c) !== $own)) > 1;
    }

    private static function filled(Line $line): int
    {
        return count(array_filter($line->cells, fn(string $c): bool => trim($c) !== ''));
    }

    /**
     * How surely a line is a header; 0 where it is none.
     *
     * @param  list<Line>  $below
     */
    private static function score(Line $line, array $below): float
    {
        $cells = array_filter($line->cells, fn(string $c): bool => trim($c) !== '');
        $data = 0;
        foreach ($cells as $c => $cell) {
            if (self::looks($cell) === null) {
                continue;
            }
            // "504" above Y and N is a heading, and so is a day above marks of presence.
            if (self::isLikeBelow($cell, $c, $below)) {
                return 0.0;
            }
            $data++;
        }
        $known = count(array_filter($cells, self::isKnown(...)));
        if ($cells === [] || ($data > 0 && $known === 0)) {
            return 0.0;
        }
        $filled = count($cells);
        $known += $data;

        return ($known >= 2 || ($known === 1 && $filled <= 2)) && ($known * 3 >= $filled || self::isSure($line))
            ? $known / $filled + min($known, 10) / 10
            : 0.0;
    }

    private static function isKnown(string $heading): bool
    {
        return max([0.0, ...array_values(Heading::read($heading))]) >= Heading::KNOWN || Heading::isLeftOut($heading);
    }

    /** Whether its first cells are headings of a person, however many that nobody knows stand after them. */
    private static function isSure(Line $line): bool
    {
        $first = array_slice(array_filter($line->cells, fn(string $c): bool => trim($c) !== ''), 0, 2);

        return count(
            array_filter($first, fn(string $c): bool => max([0.0, ...array_values(Heading::read($c))]) >= 1.0),
        ) === 2;
    }

    /** @param  list<Line>  $below */
    private static function isLikeBelow(string $cell, int $column, array $below): bool
    {
        $own = self::looks($cell);
        $cells = array_filter(
            array_map(fn(Line $l): string => $l->bare($column), $below),
            fn(string $s): bool => $s !== '',
        );

        return $cells === [] ||
            count(array_filter($cells, fn(string $s): bool => self::looks($s) === $own)) * 3 > count($cells);
    }

    /** Which kind of data a cell plainly is, if any. */
    private static function looks(string $cell): ?string
    {
        return match (1) {
            preg_match('/@[\w.-]+\./', $cell) => 'mail',
            preg_match('/^\d{3,}([.,]\d+)?$/', trim($cell)) => 'number',
            preg_match('/^\d{1,4}[\/.\-]\d{1,2}([\/.\-]\d{1,4})?$/', trim($cell)) => 'date',
            default => null,
        };
    }
}
