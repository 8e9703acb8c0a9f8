<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Where the header of a table stands. */
final class HeaderRow
{
    private const LOOK_THROUGH = 30;

    /**
     * Place of the header among the lines: at least two cells, or a third of them, are known headings, and none is
     * data.
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
            $score = self::score($line) * (0.7 + (0.3 * self::filled($line)) / $width);
            if ($score > $bestScore) {
                [$best, $bestScore] = [$i, $score];
            }
        }

        return $best ?? self::byContrast($lines, $width);
    }

    /**
     * Headings that nobody here knows: words alone in a row that reaches over the table, above columns most of whose
     * cells hold figures or addresses.
     *
     * @param  list<Line>  $lines
     */
    private static function byContrast(array $lines, int $width): ?int
    {
        $told = fn(string $cell): bool => preg_match('/[\d@]/', $cell) === 1;
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
        $columns = 0;
        foreach ($lines[$at]->cells as $c => $heading) {
            if (trim($heading) !== '' && $told($heading)) {
                return null;
            }
            $cells = array_filter(
                array_map(fn(Line $l): string => $l->bare($c), $body),
                fn(string $s): bool => $s !== '',
            );
            $columns += $cells !== [] && count(array_filter($cells, $told)) >= 0.8 * count($cells) ? 1 : 0;
        }

        return $columns >= 2 ? $at : null;
    }

    private static function filled(Line $line): int
    {
        return count(array_filter($line->cells, fn(string $c): bool => trim($c) !== ''));
    }

    /** How surely a line is a header; 0 where it is none. */
    private static function score(Line $line): float
    {
        $filled = $known = $data = 0;
        foreach ($line->cells as $cell) {
            if (trim($cell) === '') {
                continue;
            }
            $filled++;
            $known +=
                max([0.0, ...array_values(Heading::read($cell))]) >= Heading::KNOWN || Heading::isLeftOut($cell)
                    ? 1
                    : 0;
            $data += preg_match('/@[\w.-]+\.|^\d{3,}([.,]\d+)?$|^\d{1,4}[\/.\-]\d{1,2}[\/.\-]\d{1,4}$/', trim($cell));
        }
        if ($filled === 0 || $data > 0) {
            return 0.0;
        }

        return ($known >= 2 || ($known === 1 && $filled <= 2)) && $known * 3 >= $filled
            ? $known / $filled + min($known, 10) / 10
            : 0.0;
    }
}
