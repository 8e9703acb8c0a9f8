<?php

declare(strict_types=1);

namespace App\OneRoster;

use Vantrel\Core\OneRoster\Filter;
use Vantrel\Core\OneRoster\Term;

/** A filter as a condition of SQL that takes the same records as {@see Filter::takes} does by hand. */
final class Conditions
{
    /**
     * @param  array<string, string>  $columns {@see Columns::of}
     * @return array{string, list<string>} with what is bound in its places
     */
    public static function of(Filter $filter, array $columns, string $schoolId): array
    {
        $parts = $bound = [];
        foreach ($filter->terms as $term) {
            [$part, $values] = self::term($term, $columns, $schoolId);
            $parts[] = $part;
            array_push($bound, ...$values);
        }

        return [implode($filter->all ? ' AND ' : ' OR ', $parts), $bound];
    }

    /**
     * @param  array<string, string>  $columns
     * @return array{string, list<string>}
     */
    private static function term(Term $term, array $columns, string $schoolId): array
    {
        $value = Term::fold($term->value);
        if ($term->field === 'agents.sourcedId') {
            $of = 'SELECT x.user_id FROM (' . Columns::agents() . ') x WHERE ' . self::fold('x.agent_id');
            $ids = [$schoolId, $schoolId, $value];

            return match ($term->predicate) {
                '!=' => ["p.id NOT IN ($of = ?)", $ids],
                '~' => ["p.id IN ($of LIKE CONCAT('%', ?, '%'))", [...array_slice($ids, 0, 2), self::escaped($value)]],
                default => ["p.id IN ($of $term->predicate ?)", $ids],
            };
        }
        $column = $columns[$term->field] ?? null;
        if ($column === null) {
            // A field of the standard that the school has nothing of.
            return [$term->predicate === '!=' ? '1' : '0', []];
        }
        // As it stands: ids are compared by their index, and case is no part of them.
        if ($term->field === 'sourcedId' && $term->predicate === '=') {
            return ["$column = ?", [strtoupper($term->value)]];
        }
        $folded = self::fold($column);

        return match ($term->predicate) {
            '!=' => ["NOT COALESCE($folded = ?, 0)", [$value]],
            '~' => ["COALESCE($folded LIKE CONCAT('%', ?, '%'), 0)", [self::escaped($value)]],
            default => ["COALESCE($folded $term->predicate ?, 0)", [$value]],
        };
    }

    public static function fold(string $expression): string
    {
        return "LOWER(CONVERT($expression USING utf8mb4)) COLLATE utf8mb4_bin";
    }

    private static function escaped(string $text): string
    {
        return addcslashes($text, '%_\\');
    }
}
