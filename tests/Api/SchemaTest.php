<?php

declare(strict_types=1);

use App\Ledger\RowsNow;
use App\Retention\Places;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Records\Entity;

// What the core says of the tables is held against the tables as they are.

/** @return list<array{string, string, string}> table, column, table it refers to */
function foreignKeys(): array
{
    return array_map(
        fn(object $k): array => [$k->t, $k->c, $k->r],
        DB::select(
            'SELECT TABLE_NAME t, COLUMN_NAME c, REFERENCED_TABLE_NAME r FROM ' .
                'information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME ' .
                'IS NOT NULL ORDER BY 1, 2',
        ),
    );
}

$plans = array_map(fn(Entity $e): string => $e->value, Entity::cases());

it('knows every reference between the tables of plans, and no other', function () use ($plans): void {
    $said = [];
    foreach (Entity::cases() as $entity) {
        foreach ($entity->references() as $column => $to) {
            $said[] = [$entity->value, $column, $to->value];
        }
    }
    sort($said);
    $there = array_values(array_filter(foreignKeys(), fn(array $k): bool => in_array($k[0], $plans, true)));
    sort($there);
    expect($said)->toBe($there);
});

it('refers only to tables that are written before', function (): void {
    $order = array_flip(array_map(fn(Entity $e): string => $e->value, Entity::cases()));
    foreach (Entity::cases() as $entity) {
        foreach ($entity->references() as $to) {
            expect($order[$to->value])->toBeLessThanOrEqual($order[$entity->value]);
        }
    }
});

it('knows of everything outside that points at a record an undo may take away', function () use ($plans): void {
    $said = array_map(fn(array $k): array => [$k[0], $k[1], $k[2]->value], [...RowsNow::HOLD, ...RowsNow::GO_WITH]);
    sort($said);
    // No plan makes a school.
    $there = array_values(
        array_filter(
            foreignKeys(),
            fn(array $k): bool => !in_array($k[0], $plans, true) &&
                in_array($k[2], $plans, true) &&
                $k[2] !== 'schools',
        ),
    );
    sort($there);
    expect($said)->toBe($there);
});

it('knows of every column of words whether it may name somebody, and what an erasure does with it', function (): void {
    $said = [];
    foreach ([Places::WORDS, Places::ROWS] as $places) {
        foreach ($places as $table => [, , $columns]) {
            foreach (array_is_list($columns) ? $columns : array_keys($columns) as $column) {
                $said[] = "$table.$column";
            }
        }
    }
    foreach ([Places::OWN, Places::NOBODY] as $places) {
        foreach ($places as $table => $columns) {
            array_push($said, ...array_map(fn(string $column): string => "$table.$column", $columns));
        }
    }
    sort($said);
    // Letters of ASCII alone are ids, hashes and codes, which say nothing by themselves.
    $there = array_map(
        fn(object $c): string => "$c->t.$c->c",
        DB::select(
            'SELECT TABLE_NAME t, COLUMN_NAME c FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() ' .
                "AND DATA_TYPE IN ('varchar', 'char', 'text', 'mediumtext', 'longtext', 'mediumblob', 'longblob', " .
                "'blob', 'json', 'date') AND COALESCE(CHARACTER_SET_NAME, '') != 'ascii'",
        ),
    );
    sort($there);
    expect($said)->toBe($there);
});

it('knows every column that holds a secret', function () use ($plans): void {
    $columns = DB::select(
        'SELECT TABLE_NAME t, COLUMN_NAME c, IS_NULLABLE n, DATA_TYPE d FROM information_schema.COLUMNS ' .
            'WHERE TABLE_SCHEMA = DATABASE()',
    );
    $telling = $nullable = [];
    foreach ($columns as $column) {
        // A flag that asks for pictures holds none.
        if (
            in_array($column->t, $plans, true) &&
            in_array($column->d, ['char', 'varchar', 'text', 'json', 'longtext'], true) &&
            preg_match('/pass(word|phrase)|secret|token|hash|pictures|recovery/', $column->c) === 1
        ) {
            $telling[] = "$column->t.$column->c";
        }
        $nullable["$column->t.$column->c"] = $column->n === 'YES';
    }
    $said = [];
    foreach (Entity::cases() as $entity) {
        foreach ($entity->secrets() as $column) {
            $said[] = "$entity->value.$column";
        }
        foreach ($entity->issued() as $column) {
            expect($entity->secrets())->toContain($column)->and($nullable["$entity->value.$column"])->toBeTrue();
        }
    }
    sort($said);
    sort($telling);
    expect($said)->toBe($telling);
});

it('knows what may not be there twice, and nothing else', function () use ($plans): void {
    $there = [];
    foreach (
        DB::select(
            'SELECT TABLE_NAME t, INDEX_NAME i, COLUMN_NAME c FROM information_schema.STATISTICS WHERE ' .
                'TABLE_SCHEMA = DATABASE() AND NON_UNIQUE = 0 AND INDEX_NAME <> \'PRIMARY\' ORDER BY 1, 2, ' .
                'SEQ_IN_INDEX',
        )
        as $part
    ) {
        if (in_array($part->t, $plans, true) && !in_array($part->c, ['token_hash'], true)) {
            // A generated column says for which rows the rule holds; the number of those who were merged away is free.
            $there["$part->t.$part->i"][] = $part->c === 'live_number' ? 'number' : $part->c;
        }
    }
    $there = array_map(
        fn(array $columns): array => array_values(array_diff($columns, ['open_now', 'current_now'])),
        $there,
    );
    $said = [];
    foreach (Entity::cases() as $entity) {
        foreach ($entity->unique() as $rule) {
            $said[] = [$entity->value, ...$rule->columns];
            expect(
                array_diff($rule->bound(), Illuminate\Support\Facades\Schema::getColumnListing($entity->value)),
            )->toBe([]);
        }
    }
    $there = array_map(
        fn(string $index, array $columns): array => [explode('.', $index)[0], ...$columns],
        array_keys($there),
        $there,
    );
    sort($said);
    sort($there);
    expect($said)->toBe($there);
});

it('compares every address and user name byte by byte', function (): void {
    $found = DB::select(
        'SELECT TABLE_NAME t, COLUMN_NAME c, COLLATION_NAME o FROM information_schema.COLUMNS WHERE ' .
            "TABLE_SCHEMA = DATABASE() AND (COLUMN_NAME IN ('email', 'user_name', 'to_address') OR (TABLE_NAME = " .
            "'password_resets' AND COLUMN_NAME = 'address'))",
    );
    expect($found)->toHaveCount(10);
    foreach ($found as $column) {
        expect($column->o)->toEndWith('_bin', "$column->t.$column->c");
    }
});

it('has an index for what each sign-in, each session and each request between schools is looked up by', function (
    string $sql,
    array $with,
): void {
    World::make();
    $plan = DB::select("EXPLAIN $sql", $with)[0];
    // A unique index is read before there is a plan to speak of.
    expect($plan->key !== null || str_contains((string) $plan->Extra, 'const table'))->toBeTrue($sql);
})->with([
    ["SELECT id FROM badges WHERE token_hash = ? AND state = 'live'", ['x']],
    ['SELECT id FROM sign_ins WHERE user_name = ?', ['x']],
    ["SELECT id FROM people WHERE email = ? AND email_state = 'confirmed'", ['x']],
    ['SELECT id FROM identities WHERE issuer = ? AND subject = ?', ['x', 'y']],
    ["SELECT id FROM identities WHERE person_id = ? AND issuer = ? AND state = 'live'", ['x', 'y']],
    ['SELECT id FROM room_passes WHERE token_hash = ?', ['x']],
    ["SELECT id FROM transfer_requests WHERE from_school_id = ? AND state = 'waiting'", ['x']],
    ['SELECT last_at FROM credential_uses WHERE person_id = ? AND way = ? AND credential_id = ?', ['x', 'badge', 'y']],
    ['SELECT id FROM sessions WHERE user_id = ?', ['x']],
    ['SELECT id FROM password_resets WHERE token_hash = ?', ['x']],
    ['SELECT entry_seq FROM ledger_schools WHERE school_id = ?', ['x']],
]);
