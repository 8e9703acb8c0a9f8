<?php

declare(strict_types=1);

use Illuminate\Database\Events\TransactionCommitting;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

it('says that it does not know where the line is cut at the commit, and how to see', function (): void {
    // Outside the transaction of a test: only the outermost commit is one.
    $own = (string) config('database.connections.mariadb.database');
    $database = $own . '_outcome';
    ServerTestCase::useDatabase($database);
    try {
        $world = World::make();
        $this->actingAs($world->as('coordinator'))->withExceptionHandling();
        Event::listen(TransactionCommitting::class, function (TransactionCommitting $e): void {
            if ($e->connection->transactionLevel() === 1 && $e->connection->getName() === config('database.default')) {
                throw new RuntimeException('server has gone away');
            }
        });
        $this->postJson("/api/schools/$world->school/settings", ['keep_lists_days' => 33])
            ->assertStatus(500)
            ->assertJsonPath(
                'detail',
                fn(string $said): bool => str_contains($said, 'not known') &&
                    str_contains($said, 'Ledger') &&
                    !str_contains($said, 'Nothing was changed'),
            );
    } finally {
        DB::purge('mariadb');
        DB::statement("DROP DATABASE `$database`");
        ServerTestCase::useDatabase($own);
    }
});
