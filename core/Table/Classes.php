<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Values\GradeLevel;

/** Names under the name of their class, and no header: classes beside each other in columns, or under each other. */
final class Classes
{
    private const NAME = '/^\p{L}[\p{L}\p{M}\'’.-]*(?:,? \p{L}[\p{L}\p{M}\'’.-]*){1,5}$/u';

    private const SEXES = '/^(boys|girls|m|f|male|female|niños|niñas|chicos|chicas|garçons|filles|jungen|mädchen)$/iu';

    /**
     * @param  list<Line>  $lines
     * @return array<int|string, list<Line>> name of each class to its lines; none where it is not such a list
     */
    public static function tables(array $lines, Bands $bands): array
    {
        return count($lines) < 3 || array_filter($lines, fn(Line $l): bool => $l->header === true) !== []
            ? []
            : (self::beside($lines, $bands) ?:
                self::under($lines, $bands));
    }

    /**
     * @param  list<Line>  $lines
     * @return array<int|string, list<Line>>
     */
    private static function beside(array $lines, Bands $bands): array
    {
        $titles = array_filter($lines[0]->cells, fn(string $c): bool => trim($c) !== '');
        $isTitle = fn(string $t): bool => self::isClass(trim($t)) || preg_match(self::SEXES, trim($t)) === 1;
        if (
            count($titles) < 2 ||
            array_key_first($titles) !== 0 ||
            array_filter($titles, fn(string $t): bool => !$isTitle($t)) !== []
        ) {
            return [];
        }
        $starts = array_keys($titles);
        $width = max([0, ...array_map(fn(Line $l): int => count($l->cells), $lines)]);
        $tables = [];
        foreach ($starts as $n => $from) {
            $places = range($from, ($starts[$n + 1] ?? $width) - 1);
            foreach (array_slice($lines, 1) as $line) {
                $name = $line->bare($from);
                $cells = array_map($line->cell(...), $places);
                if ($name === '' && trim(implode('', $cells)) === '') {
                    continue;
                }
                // What is no name under a title makes it another kind of list.
                if (preg_match(self::NAME, $name) !== 1) {
                    return [];
                }
                $tables[trim($titles[$from])][] = $line->with($cells, self::own($line, $places), $places);
            }
        }
        if (count($tables) < 2) {
            return [];
        }
        $bands->mark($lines[0]->number, RowPart::Heading, 'it says what the lists below it are called');

        return $tables;
    }

    /**
     * @param  list<Line>  $lines
     * @return array<int|string, list<Line>>
     */
    private static function under(array $lines, Bands $bands): array
    {
        $tables = $heads = [];
        $title = '';
        foreach ($lines as $line) {
            $filled = array_filter($line->cells, fn(string $c): bool => trim($c) !== '');
            if (count($filled) !== 1 || array_key_first($filled) !== 0) {
                return [];
            }
            $text = trim($filled[0]);
            if (preg_match(self::NAME, $text) === 1) {
                if ($title === '') {
                    return [];
                }
                $tables[$title][] = $line;
            } elseif (self::isClass(rtrim($text, ':')) && !isset($tables[rtrim($text, ': ')])) {
                $title = rtrim($text, ': ');
                $heads[] = $line->number;
            } else {
                return [];
            }
        }
        if (count($tables) < 2 || count($tables) < count($heads)) {
            return [];
        }
        foreach ($heads as $number) {
            $bands->mark($number, RowPart::Heading, 'it says what the list below it is called');
        }
        $grades = array_filter(array_keys($tables), fn(int|string $t): bool => GradeLevel::read((string) $t) !== null);

        return count($grades) === count($tables) ? ['' => self::ofGrades($tables)] : $tables;
    }

    /**
     * "3rd Grade" above names says which grade they are in, and names no class.
     *
     * @param  array<int|string, list<Line>>  $tables
     * @return list<Line>
     */
    private static function ofGrades(array $tables): array
    {
        $lines = [new Line(0, ['Name', 'Grade'], places: [-1, -1], header: true)];
        foreach ($tables as $grade => $own) {
            foreach ($own as $line) {
                $lines[] = $line->with([$line->cell(0), (string) $grade], null, [0, -1]);
            }
        }

        return $lines;
    }

    /** "3A", "Room 12", "Grade 3 - Ms. Vale", "Kindergarten". */
    private static function isClass(string $text): bool
    {
        return mb_strlen($text) <= 40 &&
            ((preg_match('/\d/', $text) === 1 &&
                preg_match('/\p{L}/u', $text) === 1 &&
                preg_match('/[@\/]|\d{4}/', $text) !== 1) ||
                GradeLevel::read($text) !== null);
    }

    /**
     * @param  list<int>  $places
     * @return array<int, string>
     */
    private static function own(Line $line, array $places): array
    {
        return array_filter(array_map(fn(int $c): string => $line->flaws[$c] ?? '', $places));
    }
}
