<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** A row for each family: "Child 1 name, Child 1 grade, Child 2 name ...". Each child gets a table of its own. */
final class Children
{
    private const NUMBERED = '/\b(?:child|student|pupil|kid|kind|enfant|eleve|hijo|alumno|nino|uchen)\s*([1-6])\b/';

    /**
     * @param  list<Line>  $lines
     * @return array<string, list<Line>> "child 2" to its lines; all lines under '' where they are not of families
     */
    public static function apart(array $lines): array
    {
        $at = HeaderRow::at($lines);
        $of = [];
        foreach ($at === null ? [] : $lines[$at]->cells as $c => $heading) {
            if (preg_match(self::NUMBERED, NameKey::of($heading), $m) === 1) {
                $of[$c] = (int) $m[1];
            }
        }
        $children = array_values(array_unique($of));
        if ($at === null || count($children) < 2) {
            return ['' => $lines];
        }
        $tables = [];
        foreach ($children as $n) {
            $own = [];
            foreach ($lines as $i => $line) {
                $cells = $said = $places = [];
                foreach ($line->cells as $c => $cell) {
                    if (($of[$c] ?? $n) !== $n) {
                        continue;
                    }
                    $cells[] =
                        $i === $at && isset($of[$c]) ? (string) preg_replace('/\s*[1-6]\b/', '', $cell, 1) : $cell;
                    $places[] = $line->place($c);
                    $said[] = isset($of[$c]) ? trim($cell) : '';
                }
                // A family with one child has no row in the table of the second.
                if ($i <= $at || implode('', $said) !== '') {
                    $own[] = $line->with($cells, [], $places);
                }
            }
            $tables["child $n"] = $own;
        }

        return $tables;
    }
}
