<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Rows that count or number what stands above them: totals, and the page marks of what was printed. */
final class Footers
{
    private const PAGE = '/^(?:page|seite|pagina|strana|p|trang|сторінка)\s*\d+(?:\s*(?:of|de|von|sur|\/)\s*\d+)?$/iu';

    // prettier-ignore
    private const TOTAL = [
        'average', 'class average', 'avg', 'mean', 'median', 'class mean', 'maximum', 'minimum', 'max', 'min', 'high', 'low',
        'total present', 'total absent', 'present', 'absent', 'class total', 'promedio', 'moyenne', 'durchschnitt',
        'total', 'totals', 'subtotal', 'grand total', 'sum', 'count', 'gesamt', 'summe', 'anzahl', 'suma', 'total general',
        'somme', 'effectif', 'tong', 'tong cong', 'vsogo', 'razom', 'he ji', 'zong ji', 'almjmw',
    ];

    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    public static function without(array $lines, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        $out = $left = [];
        foreach ($lines as $i => $line) {
            if ($i !== $at && !$line->kept && self::isFooter($line)) {
                $left[] = $line->number;
            } else {
                $out[] = $line;
            }
        }

        if ($left === [] || count($out) < 2) {
            return [$lines, []];
        }
        foreach ($left as $number) {
            $bands->mark($number, RowPart::Total, 'it holds a total or a page number');
        }

        return [
            $out,
            [
                RowNumbers::sentence(
                    $left,
                    '',
                    'holds a total or a page number, and is left out.',
                    'hold totals or page numbers, and are left out.',
                ),
            ],
        ];
    }

    private static function isFooter(Line $line): bool
    {
        $filled = array_values(array_filter(array_map(trim(...), $line->cells), fn(string $c): bool => $c !== ''));
        if ($filled === []) {
            return false;
        }
        // "* = new this year", "(x) left in June": what the marks in the list mean.
        if (
            count($filled) === 1 &&
            preg_match('/^\W*(?:\*+|†|‡|\(\w{1,3}\)|[A-Z]{1,3})\s*[=:–—-]\s*\p{L}.*$/u', $filled[0]) === 1
        ) {
            return !self::saysOfRows($filled);
        }
        $figures = preg_grep('/^[\d.,:%\/ -]+$/u', array_slice($filled, 1)) ?: [];
        if (count($filled) > 4 && count($figures) < count($filled) - 1) {
            return false;
        }
        $filled = array_values(array_filter($filled, fn(string $c): bool => preg_match(self::PAGE, $c) !== 1));
        if ($filled === [] || (count($filled) === 2 && preg_match(self::PAGE, implode(' ', $filled)) === 1)) {
            return true;
        }
        // "Boys: 12", "Girls: 14".
        if (preg_grep('/^\p{L}[\p{L} .]{0,24}[:=]\s*\d{1,4}$/u', $filled) === $filled && !self::saysOfRows($filled)) {
            return true;
        }
        $words = NameKey::of((string) preg_replace('/[\d.,:%]+/', ' ', $filled[0]));
        $rest = array_slice($filled, 1);

        return in_array(
            $words,
            [...self::TOTAL, ...array_map(fn(string $t): string => "$t students", self::TOTAL)],
            true,
        ) && preg_grep('/^[\d.,:% ]+$|^\d+ \p{L}+$/u', $rest) === $rest;
    }

    /**
     * "Grade: 3", "Room: 12" say of the rows below what they are.
     *
     * @param  list<string>  $filled
     */
    private static function saysOfRows(array $filled): bool
    {
        foreach ($filled as $cell) {
            if (array_intersect(array_keys(Heading::read((string) strstr($cell, ':', true))), Blocks::SAID) !== []) {
                return true;
            }
        }

        return false;
    }
}
