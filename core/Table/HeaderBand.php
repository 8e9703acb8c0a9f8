<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Headers of two rows or three: groups above (Student, Parent 1, Parent 2), what each column holds below. */
final class HeaderBand
{
    private const MOST_ROWS = 3;

    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    public static function merged(array $lines, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        $at = $at !== null && self::isBelow($lines[$at], $lines[$at + 1] ?? null) ? $at + 1 : $at;
        $header = $lines[$at ?? -1] ?? null;
        if ($at === null || $header === null) {
            return [$lines, []];
        }
        $first = $at;
        $cells = $header->cells;
        while ($first > 0 && $at - $first < self::MOST_ROWS - 1) {
            $joined = $lines[$first - 1]->kept ? null : self::joined($lines[$first - 1], $cells);
            if ($joined === null) {
                break;
            }
            $cells = $joined;
            $first--;
        }
        if ($first === $at) {
            return [$lines, []];
        }
        $above = array_slice($lines, $first, $at - $first);
        foreach ($above as $line) {
            $bands->mark($line->number, RowPart::Groups, 'it says whose the columns below it are');
        }
        $numbers = array_map(fn(Line $l): int => $l->number, [...$above, $header]);

        return [
            [...array_slice($lines, 0, $first), $header->with($cells), ...array_slice($lines, $at + 1)],
            [RowNumbers::sentence($numbers, '', 'are read as one header.', 'are read as one header.')],
        ];
    }

    /** Whether a row is nothing but headings of parts of those above it: "First" and "Last" below "Name". */
    private static function isBelow(Line $above, ?Line $below): bool
    {
        $cells = array_filter($below->cells ?? [], fn(string $c): bool => trim($c) !== '');

        return $below !== null &&
            !$below->kept &&
            count($cells) > 1 &&
            array_filter($cells, fn(string $c): bool => max([0.0, ...Heading::read($c)]) < 1.0) === [] &&
            self::isDivided($above, $below->cells);
    }

    /**
     * Whether headings stand below a wider one, and nothing below the others.
     *
     * @param  list<string>  $headings
     */
    private static function isDivided(Line $above, array $headings): bool
    {
        $parts = $others = 0;
        $wide = false;
        for ($c = 0; $c < max(count($headings), count($above->cells)); $c++) {
            $heading = $headings[$c] ?? '';
            if (trim($heading) === '') {
                $wide = false;
                $others += $above->bare($c) !== '' ? 1 : 0;
            } elseif ($above->bare($c) === '') {
                // Of no wider one: it stands beside a title.
                if (!$wide) {
                    return false;
                }
                $parts++;
            } elseif (($headings[$c + 1] ?? '') === '' || $above->bare($c + 1) !== '') {
                // Both say something of one column, and the upper one reaches over no other.
                return false;
            } else {
                $wide = true;
            }
        }

        return $parts > 0 && $others > 0;
    }

    /**
     * The headings with what the row above says of them; null where it says nothing of the kind.
     *
     * @param  list<string>  $headings
     * @return list<string>|null
     */
    private static function joined(Line $above, array $headings): ?array
    {
        $groups = array_filter($above->cells, fn(string $c): bool => trim($c) !== '');
        $named = array_map(NameKey::of(...), array_filter($headings, fn(string $c): bool => trim($c) !== ''));
        $repeated = count($named) > count(array_unique($named));
        $people = array_filter($groups, Heading::isOfSomebody(...));
        if (
            !self::isDivided($above, $headings) &&
            (count($groups) < 2 || count($groups) >= count($named) || ($people === [] && !$repeated))
        ) {
            return null;
        }
        $group = '';
        $cells = [];
        for ($c = 0; $c < max(count($headings), count($above->cells)); $c++) {
            $heading = $headings[$c] ?? '';
            $group = $above->bare($c) !== '' ? $above->bare($c) : $group;
            $whole = trim("$group $heading");
            $cells[] = match (true) {
                // A heading of the row above that reaches down through this one.
                trim($heading) === '' => $above->bare($c),
                // "Name" above "First" and "Last" adds nothing to them.
                Heading::read($whole) === [] && Heading::read($heading) !== [] && !Heading::isOfSomebody($group)
                    => $heading,
                default => $whole,
            };
        }

        return $cells;
    }
}
