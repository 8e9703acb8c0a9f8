<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/** Two people in one cell: "John & Mary Smith", "Smith, John and Mary", "Ann Rowe / Bob Marsh". */
final class Couple
{
    private const AND = '(?:\s*[&+\/;]\s*|\s+(?:and|und|y|e|et|и|та|і|và|ve)\s+)';

    private const TITLE = '(?:mr|mrs|ms|miss|mx|dr|sr|sra|mme|mlle|m|herr|frau)\.?';

    /**
     * The couple's one name, where a cell gives two titles and one name: "Mr. & Mrs. Peter Vale".
     */
    public static function withoutTitles(string $cell): string
    {
        return trim((string) preg_replace('/(^|,\s*)' . self::TITLE . self::AND . self::TITLE . '\s+/iu', '$1', $cell));
    }

    /**
     * @param  bool  $familyFirst whether the column puts the family name first
     * @return array{PersonName, PersonName}|null null where it is one person
     */
    public static function read(string $cell, bool $familyFirst = false, ?NameBook $book = null): ?array
    {
        $parts = preg_split('/' . self::AND . '/iu', trim($cell));
        if ($parts === false || count($parts) !== 2 || min(array_map(mb_strlen(...), $parts)) < 2) {
            return null;
        }
        [$a, $b] = $parts;
        $read = fn(string $name): PersonName => NameReader::read($name, $familyFirst, $book);
        $one = fn(string $name): bool => !str_contains($name, ' ');
        if (str_contains($a, ',')) {
            $first = NameReader::read($a);

            return [$first, str_contains($b, ',') ? NameReader::read($b) : new PersonName($b, $first->family)];
        }
        if (str_contains($b, ',')) {
            return null;
        }
        return match (true) {
            $one($a) && $one($b) => [new PersonName($a, ''), new PersonName($b, '')],
            $one($a) => $familyFirst ? null : [new PersonName($a, $read($b)->family), $read($b)],
            // "José Ortega y Gasset" is one person, and so may "Ann Rowe & Bob" be two: it is not known here.
            $one($b) => $familyFirst ? [$read($a), new PersonName($b, $read($a)->family)] : null,
            default => [$read($a), $read($b)],
        };
    }

    /** Whether a cell that is read as one person may well name two. */
    public static function mayBe(string $cell): bool
    {
        return preg_match('/\s[&+\/]\s|\s(?:and|und)\s/iu', $cell) === 1;
    }
}
