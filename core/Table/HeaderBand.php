<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Headers of two rows: groups above (Student, Parent 1, Parent 2), what each column holds below. */
final class HeaderBand
{
    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    public static function merged(array $lines, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        $header = $lines[$at ?? -1] ?? null;
        $above = $lines[($at ?? 0) - 1] ?? null;
        if ($header === null || $above === null || $above->kept) {
            return [$lines, []];
        }
        $groups = array_filter($above->cells, fn(string $c): bool => trim($c) !== '');
        $headings = array_map(NameKey::of(...), array_filter($header->cells, fn(string $c): bool => trim($c) !== ''));
        $repeated = count($headings) > count(array_unique($headings));
        $people = array_filter($groups, fn(string $g): bool => Heading::isOfSomebody($g));
        if (count($groups) < 2 || count($groups) >= count($headings) || ($people === [] && !$repeated)) {
            return [$lines, []];
        }
        $group = '';
        $cells = [];
        foreach ($header->cells as $c => $heading) {
            $group = $above->bare($c) !== '' ? $above->bare($c) : $group;
            $cells[] = trim($heading) === '' ? '' : trim("$group $heading");
        }

        $bands->mark($above->number, RowPart::Groups, 'it says whose the columns below it are');

        return [
            [...array_slice($lines, 0, $at - 1), $header->with($cells), ...array_slice($lines, $at + 1)],
            ["Rows $above->number and $header->number are read as one header."],
        ];
    }
}
