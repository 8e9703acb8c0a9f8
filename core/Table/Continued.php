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
        $groups = self::groups($lines, $at, $who);
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
                foreach ($groups as $c) {
                    if (trim($cells[$c]) === '' && self::says($cells, $who)) {
                        $cells[$c] = $above[$c] ?? '';
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
            $out[] = $line->with(array_values($cells));
        }

        $notes = [];
        if ($went > 0) {
            $notes[] =
                ($went === 1 ? 'One row goes' : "$went rows go") .
                ' on with the row above: what is blank there is read as the same.';
        }
        if ($groups !== []) {
            $names = implode(' and ', array_map(fn(int $c): string => trim($lines[$at]->cell($c)), $groups));
            $notes[] = "What stands once under $names counts for the rows below it, until one says otherwise.";
        }

        return [$out, $notes];
    }

    /**
     * Columns in which each class or grade stands once, at the first of its rows.
     *
     * @param  list<Line>  $lines
     * @param  list<int>  $who columns that tell whose row it is
     * @return list<int>
     */
    private static function groups(array $lines, int $at, array $who): array
    {
        $body = array_values(
            array_filter(array_slice($lines, $at + 1), fn(Line $l): bool => self::says($l->cells, $who)),
        );
        $groups = [];
        foreach ($lines[$at]->cells as $c => $heading) {
            if (array_intersect(array_keys(Heading::read($heading)), Blocks::SAID) === [] || in_array($c, $who, true)) {
                continue;
            }
            $said = array_filter(
                array_map(fn(Line $l): string => $l->bare($c), $body),
                fn(string $s): bool => $s !== '',
            );
            $blank = count($body) - count($said);
            // Somebody without a class has a blank too; where each class stands but once, the blanks are of it.
            if (
                isset($said[0]) &&
                $blank >= 2 &&
                $blank >= 0.4 * count($body) &&
                count($said) === count(array_unique($said))
            ) {
                $groups[] = $c;
            }
        }

        return $groups;
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
