<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Lists of different kinds under each other in one sheet, each with a header of its own: students, then staff. */
final class Stacked
{
    /**
     * @param  list<Line>  $lines
     * @return array<int|string, list<Line>> title of each list, or its place, to its lines; all lines where there is
     *     one
     */
    public static function tables(array $lines, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        if ($at === null || $lines[$at]->header === true) {
            return ['' => $lines];
        }
        $starts = [$at];
        foreach ($lines as $i => $line) {
            if ($i > $at + 1 && !$line->kept && self::isOther($line, $lines[$at])) {
                $starts[] = $i;
            }
        }
        if (count($starts) < 2) {
            return ['' => $lines];
        }
        $tables = [];
        foreach ($starts as $n => $start) {
            $end = ($starts[$n + 1] ?? count($lines)) - 1;
            // What stands alone above a header is the title of its list.
            $titled = $n + 1 < count($starts) && self::isTitle($lines[$end]) ? 1 : 0;
            $above = $lines[$start - 1] ?? null;
            // "Homeroom: 3B" says it itself, of the rows below it.
            $says = $above !== null && Blocks::said($above) !== [];
            $title = $above !== null && !$says && self::isTitle($above) ? trim(implode(' ', $above->cells)) : '';
            if ($title !== '') {
                $bands->mark($lines[$start - 1]->number, RowPart::Heading, 'it says what the list below it is called');
            }
            $name = $title !== '' && !isset($tables[$title]) ? $title : 'list ' . ($n + 1);
            $from = $says ? $start - 1 : $start;
            $tables[$name] = array_slice($lines, $from, $end - $from + 1 - $titled);
        }
        foreach (array_slice($lines, 0, $starts[0]) as $line) {
            if ($bands->part($line->number) === null) {
                $bands->mark($line->number, RowPart::Title, 'it stands above the lists');
            }
        }

        return $tables;
    }

    /** A line of headings and nothing else, other ones than the first header has. */
    private static function isOther(Line $line, Line $header): bool
    {
        foreach ($line->cells as $cell) {
            if (trim($cell) !== '' && (preg_match('/@|\d{3}/', $cell) === 1 || !HeadingVocabulary::holds($cell))) {
                return false;
            }
        }
        $own = array_filter(array_map(NameKey::of(...), $line->cells), fn(string $k): bool => $k !== '');
        if (count($own) < 2 || HeaderRow::at([$line]) === null) {
            return false;
        }
        foreach ($line->cells as $cell) {
            if (trim($cell) !== '' && max([0.0, ...array_values(Heading::read($cell))]) < Heading::KNOWN) {
                return false;
            }
        }
        $first = array_map(NameKey::of(...), $header->cells);

        return count(array_diff($own, $first)) >= 1;
    }

    private static function isTitle(Line $line): bool
    {
        return count(array_filter($line->cells, fn(string $c): bool => trim($c) !== '')) === 1;
    }
}
