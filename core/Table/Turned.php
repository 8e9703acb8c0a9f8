<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Lists in which a person is no row: their headings stand below each other, or all names in one row. */
final class Turned
{
    private const SAMPLE = 100;

    /**
     * @param  list<Line>  $lines
     * @return string|null how the list has to be turned, where it has to be; null where its rows are people
     */
    public static function cure(array $lines): ?string
    {
        $lines = array_values(array_filter($lines, fn(Line $l): bool => !$l->isBlank()));
        if (count($lines) === 1 && self::areNames($lines[0])) {
            return 'All names of this list stand in one row. Put each into a row of its own, with what each column ' .
                'holds in a row above them (Name, Grade), save, and drop it in again.';
        }
        $names = ['full_name' => 1, 'student_name' => 1, 'given_name' => 1, 'family_name' => 1];
        $fields = [];
        foreach (array_slice($lines, 0, self::SAMPLE) as $line) {
            $read = Heading::read(rtrim($line->bare(0), ' :'));
            $fields[] = max([0.0, ...array_values($read)]) >= Heading::KNOWN ? (string) array_key_first($read) : '';
        }
        $known = array_filter($fields, fn(string $f): bool => $f !== '');
        $kinds = array_unique($known);
        $across = array_filter(
            array_slice($lines[0]->cells ?? [], 1),
            fn(string $c): bool => trim($c) !== '' && Heading::read($c) !== [],
        );
        if (
            count($known) < max(3, 0.7 * count($fields)) ||
            count($kinds) < 2 ||
            array_intersect_key($names, array_flip($kinds)) === [] ||
            $across !== []
        ) {
            return null;
        }

        return count($known) === count($kinds)
            ? 'The headings of this list stand below each other, and each person in a column. Copy it, paste it with ' .
                    'rows and columns exchanged, save, and drop it in again.'
            : 'The headings of this list stand before each value, and each person in several rows. Make it a row for ' .
                    'each person below one row of headings, save, and drop it in again.';
    }

    private static function areNames(Line $line): bool
    {
        $filled = array_filter(array_map(trim(...), $line->cells), fn(string $c): bool => $c !== '');
        $names = preg_grep('/^\p{L}[\p{L}\p{M}\'’-]+ \p{L}[\p{L}\p{M} \'’.-]+$/u', $filled) ?: [];

        return count($filled) >= 3 && count($names) === count($filled) && HeaderRow::at([$line]) === null;
    }
}
