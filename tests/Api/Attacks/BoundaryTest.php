<?php

declare(strict_types=1);

use App\Ledger\WriteGuard;
use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */

beforeEach(fn() => readyForAttacks($this));

// The boundary: nothing but the ledger writes tables of plans, however it is tried.

it('throws on every write outside the ledger', function (Closure $write): void {
    WriteGuard::arm();
    try {
        expect(fn() => $write($this->world->as('student')))->toThrow(LogicException::class, 'Only the ledger');
    } finally {
        WriteGuard::disarm();
    }
})->with([
    'a model updated' => [fn(Person $p) => $p->update(['grade' => '05'])],
    'a model filled and saved' => [fn(Person $p) => $p->forceFill(['grade' => '05'])->save()],
    'a model saved quietly' => [fn(Person $p) => $p->forceFill(['grade' => '05'])->saveQuietly()],
    'a model deleted' => [fn(Person $p) => $p->delete()],
    'a model made' => [fn(Person $p) => Person::query()->create(['id' => 'x'])],
    'a query of a model' => [
        fn(Person $p) => Person::query()
            ->whereKey($p->id)
            ->update(['grade' => '05']),
    ],
    'counting up' => [fn(Person $p) => Person::query()->whereKey($p->id)->increment('version')],
    'a builder over several lines' => [
        fn(Person $p) => DB::table('people')
            ->where('id', $p->id)
            ->update(['grade' => '05']),
    ],
    'a builder with an alias' => [
        fn(Person $p) => DB::table('people as p')
            ->where('p.id', $p->id)
            ->update(['p.grade' => '05']),
    ],
    'an upsert' => [
        fn(Person $p) => DB::table('sign_ins')->upsert(
            [['id' => 'x', 'person_id' => $p->id, 'user_name' => 'x']],
            ['id'],
        ),
    ],
    'a raw update' => [fn(Person $p) => DB::update('UPDATE people SET grade = ? WHERE id = ?', ['05', $p->id])],
    'a raw update of two tables' => [
        fn(Person $p) => DB::statement('update sessions s join `people` p on p.id = s.user_id set p.grade = 5'),
    ],
    'a statement in capitals with a comment' => [
        fn(Person $p) => DB::unprepared('/* harmless */ DELETE FROM `enrollments` WHERE 1'),
    ],
    'another connection' => [
        fn(Person $p) => DB::connection('progress')
            ->table('schools')
            ->update(['name' => 'x']),
    ],
    'a truncation' => [fn(Person $p) => DB::statement('TRUNCATE TABLE badges')],
    'replacing' => [fn(Person $p) => DB::statement("REPLACE INTO join_codes (id) VALUES ('x')")],
]);

it('lets everything else write what is its own', function (): void {
    WriteGuard::arm();
    try {
        DB::table('outgoing_messages')->where('to_address', 'people')->delete();
        DB::table('imports')
            ->whereIn('id', fn($q) => $q->select('id')->from('people'))
            ->update(['title' => 'enrollments']);
        expect(WriteGuard::written('select * from people for update'))
            ->toBeNull()
            ->and(WriteGuard::written('insert into credential_uses (person_id) values (?)'))
            ->toBeNull();
    } finally {
        WriteGuard::disarm();
    }
});
