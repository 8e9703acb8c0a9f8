<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * Rows that go on with the one above: a blank, or a ditto mark, where the student or the family stands once. A second
 * guardian in the row below, brothers and sisters under one family name.
 */
final class Continued
{
    private const DITTO = '/^(?:["”″〃]|\'\'|ditto|do\.|same|same as above|as above|idem|id\.|—|-)$/iu';

    /** Columns that tell whose row it is. */
    private const WHO = ['student_number', 'full_name', 'student_name', 'given_name', 'family_name', 'account_key'];

    /**
     * @param  list<Line>  $lines
     * @return array{list<Line>, list<string>}
     */
    public static function filled(array $lines, Bands $bands): array
    {
        $at = HeaderRow::at($lines);
        if ($at === null) {
            return [$lines, []];
        }
        $who = $guardian = $family = [];
        foreach ($lines[$at]->cells as $c => $heading) {
            $fields = array_keys(Heading::read($heading));
            $first = $fields[0] ?? '';
            if (str_starts_with($first, 'guardian')) {
                $guardian[] = $c;
            } elseif ($first === 'family_name') {
                $family[] = $c;
                $who[] = $c;
            } elseif (in_array($first, self::WHO, true)) {
                $who[] = $c;
            }
        }
        if ($who === []) {
            return [$lines, []];
        }
        $out = [];
        $above = null;
        $went = 0;
        foreach ($lines as $i => $line) {
            $cells = array_pad($line->cells, count($lines[$at]->cells), '');
            if ($i > $at && $above !== null) {
                $given = array_values(array_diff($who, $family));
                $goesOn =
                    // The student stands above, another guardian here.
                    (!self::says($cells, $who) && self::says($cells, $guardian)) ||
                    // Another child of the family that stands above.
                    ($family !== [] && $given !== [] && !self::says($cells, $family) && self::says($cells, $given));
                if ($goesOn) {
                    $went++;
                    $whole = !self::says($cells, $who);
                    foreach ($cells as $c => $cell) {
                        $take = $whole
                            ? !in_array($c, $guardian, true)
                            : in_array($c, [...$family, ...$guardian], true);
                        if ($take && (trim($cell) === '' || preg_match(self::DITTO, trim($cell)) === 1)) {
                            $cells[$c] = $above[$c] ?? '';
                        }
                    }
                }
                foreach ($cells as $c => $cell) {
                    if (preg_match(self::DITTO, trim($cell)) === 1 && trim($cell) !== '-' && trim($cell) !== '—') {
                        $cells[$c] = $above[$c] ?? '';
                    }
                }
            }
            if ($i > $at) {
                $above = $cells;
            }
            foreach ($cells as $c => $cell) {
                if ($cell !== $line->cell($c) && $line->place($c) >= 0) {
                    $bands->fill($line->number, $line->place($c), $cell);
                }
            }
            $out[] = $line->with($cells);
        }

        return [
            $out,
            $went === 0
                ? []
                : [
                    ($went === 1 ? 'One row goes' : "$went rows go") .
                    ' on with the row above: what is blank there is read as the same.',
                ],
        ];
    }

    /**
     * @param  array<int, string>  $cells
     * @param  array<int>  $columns
     */
    private static function says(array $cells, array $columns): bool
    {
        foreach ($columns as $c) {
            $cell = trim($cells[$c] ?? '');
            if ($cell !== '' && preg_match(self::DITTO, $cell) !== 1) {
                return true;
            }
        }

        return false;
    }
}
