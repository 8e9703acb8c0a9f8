<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;

/** Updates many rows to values of their own in one statement, by joining the table with a JSON document. */
final class SetUpdate
{
    /** @param  non-empty-list<array<string, string|int|null>>  $rows each with `id` and the same columns to set */
    public static function run(string $table, array $rows): void
    {
        $columns = array_values(array_diff(array_keys($rows[0]), ['id']));
        // Column names come from the core's own plans, never from input; quoted all the same.
        $quoted = array_map(fn(string $c): string => '`' . str_replace('`', '', $c) . '`', $columns);
        $declared = implode(
            ', ',
            array_map(fn(string $c, string $q): string => "$q TEXT PATH '\$.$c'", $columns, $quoted),
        );
        $set = implode(', ', array_map(fn(string $q): string => "t.$q = j.$q", $quoted));
        DB::update(
            "UPDATE `$table` t JOIN JSON_TABLE(?, '\$[*]' COLUMNS (id CHAR(26) CHARACTER SET ascii COLLATE " .
                "ascii_bin PATH '\$.id', $declared)) j ON j.id = t.id SET $set",
            [json_encode($rows, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)],
        );
    }
}
