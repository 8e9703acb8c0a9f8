<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** The values of a record's fields, as filters and orders take them. */
final class Values
{
    /**
     * @param  array<string, mixed>  $record
     * @param  string  $field with a dot into what it holds
     * @return list<string>
     */
    public static function of(array $record, string $field): array
    {
        [$name, $inner] = explode('.', $field, 2) + [1 => ''];
        $value = $record[$name] ?? null;
        $all = is_array($value) && array_is_list($value) ? $value : [$value];
        $found = [];
        foreach ($all as $one) {
            $one = $inner === '' ? $one : (is_array($one) ? $one[$inner] ?? null : null);
            if (is_string($one)) {
                $found[] = $one;
            }
        }

        return $found;
    }

    /**
     * The records a query takes, in its order, whatever keeps them: those of a service that has them all at hand.
     *
     * @param  list<array<string, mixed>>  $records
     * @return array{list<array<string, mixed>>, int} the page, and how many there are
     */
    public static function page(array $records, Query $query): array
    {
        $keyed = [];
        foreach ($records as $record) {
            if ($query->filter?->takes(fn(string $field): array => self::of($record, $field)) !== false) {
                $id = self::of($record, 'sourcedId')[0] ?? '';
                $keyed[] = [Term::fold(self::of($record, $query->sort ?? 'sourcedId')[0] ?? ''), $id, $record];
            }
        }
        usort(
            $keyed,
            fn(array $a, array $b): int => ($query->down ? -1 : 1) * strcmp($a[0], $b[0]) ?: strcmp($a[1], $b[1]),
        );
        $page = array_slice($keyed, $query->offset, $query->limit);

        return [array_map(fn(array $k): array => $query->select($k[2]), $page), count($keyed)];
    }
}
