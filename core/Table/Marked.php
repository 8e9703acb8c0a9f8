<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Rows that whoever made the list has taken out without deleting them: hidden by a filter, or struck out. */
final class Marked
{
    /**
     * @param  list<Line>  $lines
     * @param  bool  $takeHidden whether somebody said that hidden rows belong to the list
     * @return array{list<Line>, list<string>, bool} the lines that count, what was left out, and whether any is hidden
     */
    public static function without(array $lines, Bands $bands, bool $takeHidden): array
    {
        $hidden = array_values(array_filter($lines, fn(Line $l): bool => $l->hidden && !$l->kept));
        $struck = array_values(array_filter($lines, fn(Line $l): bool => $l->struck && !$l->hidden && !$l->kept));
        // Where nothing else is there, it is what the list is.
        if (count($hidden) + count($struck) >= count($lines) - 1) {
            return [$lines, [], false];
        }
        $any = $hidden !== [];
        $hidden = $takeHidden ? [] : $hidden;
        $notes = [];
        if ($hidden !== []) {
            $notes[] = RowNumbers::sentence(
                array_map(fn(Line $l): int => $l->number, $hidden),
                '',
                'is hidden in the file, by a filter or by hand, and left out here.',
                'are hidden in the file, by a filter or by hand, and left out here.',
            );
        }
        if ($struck !== []) {
            $notes[] = RowNumbers::sentence(
                array_map(fn(Line $l): int => $l->number, $struck),
                '',
                'is struck out in the file, and left out here. If it belongs to the list, say so on its sheet.',
                'are struck out in the file, and left out here. If they belong to the list, say so on its sheet.',
            );
        }
        foreach ($hidden as $line) {
            $bands->mark($line->number, RowPart::Hidden, 'the file hides it');
        }
        foreach ($struck as $line) {
            $bands->mark($line->number, RowPart::Struck, 'it is struck out in the file');
        }
        $left = array_fill_keys(array_map(fn(Line $l): int => $l->number, [...$hidden, ...$struck]), true);

        return [array_values(array_filter($lines, fn(Line $l): bool => !isset($left[$l->number]))), $notes, $any];
    }
}
