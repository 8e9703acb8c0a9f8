<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\GradeLevel;

/**
 * A row for each family: "Child 1 name, Child 1 grade, Child 2 name ...", or all children in one cell. Each child gets
 * a table of its own.
 */
final class Children
{
    private const NUMBERED = '/\b(?:child|student|pupil|kid|kind|enfant|eleve|hijo|alumno|nino|uchen)\s*([1-6])\b/';

    private const PLURAL =
        '/\b(?:children|students|pupils|kids|kinder|enfants|eleves|hijos|alumnos|student s|' . 'child ren)\b/';

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
            return $at === null ? ['' => $lines] : self::inCells($lines, $at);
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

    /**
     * "Ada Quill (3), Ben Quill (1)" under Children; what stands under Grades beside it is divided alike.
     *
     * @param  list<Line>  $lines
     * @return array<string, list<Line>>
     */
    private static function inCells(array $lines, int $at): array
    {
        $header = $lines[$at];
        $of = null;
        foreach ($header->cells as $c => $heading) {
            if ($of === null && Heading::isOfStudents($heading) && self::areSeveral($lines, $at, $c)) {
                $of = $c;
            }
        }
        if ($of === null) {
            return ['' => $lines];
        }
        $alike = array_values(
            array_filter(
                array_keys($header->cells),
                fn(int $c): bool => $c === $of ||
                    (self::isOfChildren($header->cell($c)) && self::goesAlong(array_slice($lines, $at + 1), $of, $c)),
            ),
        );
        $body = array_slice($lines, $at + 1);
        $graded = array_filter(
            $body,
            fn(Line $l): bool => array_filter(
                self::parts($l->bare($of)),
                fn(string $p): bool => self::grade($p) !== '',
            ) !== [],
        );
        $grades = count($graded) * 2 > count($body);
        $largest = max([1, ...array_map(fn(Line $l): int => count(self::parts($l->bare($of))), $body)]);
        $tables = [];
        foreach ($lines as $i => $line) {
            $most = $i <= $at ? $largest : max(1, count(self::parts($line->bare($of))));
            for ($n = 0; $n < $most; $n++) {
                $cells = $line->cells;
                foreach ($i <= $at ? [] : $alike as $c) {
                    $cells[$c] = self::parts($line->bare($c))[$n] ?? '';
                }
                $places = array_map($line->place(...), array_keys($cells));
                if ($grades) {
                    $cells[] = $i <= $at ? ($i === $at ? 'Grade' : '') : self::grade($cells[$of] ?? '');
                    $places[] = $line->place($of);
                }
                $tables['child ' . ($n + 1)][] = $line->with(array_values($cells), $n === 0 ? null : [], $places);
            }
        }

        return array_filter($tables, fn(array $own): bool => count($own) > $at + 1);
    }

    /** @param  list<Line>  $lines */
    private static function areSeveral(array $lines, int $at, int $column): bool
    {
        $plural = preg_match(self::PLURAL, NameKey::of($lines[$at]->cell($column))) === 1;
        $several = $filled = 0;
        foreach (array_slice($lines, $at + 1) as $line) {
            $parts = self::parts($line->bare($column));
            $filled += $parts === [] ? 0 : 1;
            // "Quill, Ada" is one name, whatever its heading; "Ada Quill, Ben Quill" are two, and so are "Ada, Ben"
            // beside the grades "3, 1".
            $whole = array_filter($parts, fn(string $p): bool => preg_match('/\p{L}\S* +\p{L}/u', $p) === 1);
            $several +=
                count($parts) > 1 &&
                (count($whole) === count($parts) ||
                    ($plural && self::isListedAlong($line, $lines[$at], $column, count($parts))))
                    ? 1
                    : 0;
        }

        return $several > 0 && ($plural || $several * 4 >= $filled);
    }

    /** Whether a row says as many things of the children in another cell: their grades or numbers. */
    private static function isListedAlong(Line $line, Line $header, int $column, int $children): bool
    {
        foreach ($header->cells as $c => $heading) {
            $parts = self::parts($line->bare($c));
            if (
                $c !== $column &&
                count($parts) === $children &&
                self::isOfChildren($heading) &&
                preg_grep('/\d/', $parts) === $parts
            ) {
                return true;
            }
        }

        return false;
    }

    private static function isOfChildren(string $heading): bool
    {
        return Heading::isOfStudents($heading) || !Heading::isOfSomebody($heading);
    }

    /** @param  list<Line>  $body */
    private static function goesAlong(array $body, int $of, int $column): bool
    {
        $several = array_filter($body, fn(Line $l): bool => count(self::parts($l->bare($of))) > 1);
        foreach ($several as $line) {
            if (count(self::parts($line->bare($column))) !== count(self::parts($line->bare($of)))) {
                return false;
            }
        }

        return $several !== [];
    }

    /** @return list<string> */
    private static function parts(string $cell): array
    {
        return array_values(
            array_filter(
                array_map(trim(...), preg_split('/[,;&\n\/]| (?:and|y|et|und) /u', $cell) ?: []),
                fn(string $p): bool => $p !== '',
            ),
        );
    }

    /** "3" of "Ada Quill (3)". */
    private static function grade(string $part): string
    {
        return preg_match('/[(\[]([^)\]]+)[)\]]\s*$/u', $part, $m) === 1 && GradeLevel::read($m[1]) !== null
            ? $m[1]
            : '';
    }
}
