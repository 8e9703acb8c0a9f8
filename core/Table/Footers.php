<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * Rows that are no people: totals, the page marks of what was printed, what explains a mark in the list or how its form
 * is to be filled in.
 */
final class Footers
{
    private const PAGE = '/^(?:page|seite|pagina|strana|p|trang|сторінка)\s*\d+(?:\s*(?:of|de|von|sur|\/)\s*\d+)?$/iu';

    private const HINT =
        '/^\(?(?:required|optional|mandatory|text|string|date|number|numeric|integer|email|' .
        '[ymd]{2,4}([-\/.])[ymd]{2,4}\1[ymd]{2,4}|' .
        'obligatorio|opcional|obligatoire|facultatif|pflichtfeld|e\.?g\.? .*)\)?$/iu';

    /** In brackets, before a colon or alone: there are people called Sample. */
    private const EXAMPLE =
        '/^(?:[(\[](?:example|sample|ejemplo|exemple|beispiel)[)\]]|(?:example|sample|ejemplo|' .
        'exemple|beispiel)\s*(?::|$)|' .
        'e\.g\.\s)/iu';

    private const LEGEND = '/^\W*(?:\*+|†|‡|\(\w{1,3}\)|[A-Z]{1,3}(?= *=))\s*[=:–—-]\s*\p{L}.*$/u';

    // prettier-ignore
    private const TOTAL = [
        'average', 'class average', 'avg', 'median', 'class mean', 'maximum', 'minimum', 'total present', 'total absent',
        'class total', 'promedio', 'moyenne', 'durchschnitt',
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
        $out = $left = $text = [];
        foreach ($lines as $i => $line) {
            if ($i === $at || $line->kept || !self::isFooter($line)) {
                $out[] = $line;
            } elseif (self::explains(self::filled($line))) {
                $text[] = $line->number;
            } else {
                $left[] = $line->number;
            }
        }
        if (($left === [] && $text === []) || count($out) < 2) {
            return [$lines, []];
        }
        $notes = [];
        if ($left !== []) {
            array_walk($left, fn(int $n) => $bands->mark($n, RowPart::Total, 'it holds a total or a page number'));
            $notes[] = RowNumbers::sentence(
                $left,
                '',
                'holds a total or a page number, and is left out.',
                'hold totals or page numbers, and are left out.',
            );
        }
        if ($text !== []) {
            array_walk($text, fn(int $n) => $bands->mark($n, RowPart::Text, 'it explains the list'));
            $notes[] = RowNumbers::sentence(
                $text,
                '',
                'explains the list or is an example, and is left out.',
                'explain the list or are examples, and are left out.',
            );
        }

        return [$out, $notes];
    }

    /** @return list<string> */
    private static function filled(Line $line): array
    {
        return array_values(array_filter(array_map(trim(...), $line->cells), fn(string $c): bool => $c !== ''));
    }

    /**
     * "* = new this year", "(x) left in June", "Required, Required, Optional", "(example) Jane Doe": what a mark means,
     * or how a form is to be filled in.
     *
     * @param  list<string>  $filled
     */
    private static function explains(array $filled): bool
    {
        return $filled !== [] &&
            (preg_grep(self::HINT, $filled) === $filled ||
                (count($filled) > 1 && preg_grep('/^[(\[][^()\[\]]*[)\]]$/u', $filled) === $filled) ||
                preg_match(self::EXAMPLE, $filled[0]) === 1 ||
                (count($filled) === 1 && preg_match(self::LEGEND, $filled[0]) === 1 && !self::saysOfRows($filled)));
    }

    private static function isFooter(Line $line): bool
    {
        $filled = self::filled($line);
        if ($filled === [] || self::explains($filled)) {
            return $filled !== [];
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
