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
        if (count($groups) < 2 || count($groups) >= count($named) || ($people === [] && !$repeated)) {
            return null;
        }
        $group = '';
        $cells = [];
        foreach ($headings as $c => $heading) {
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
