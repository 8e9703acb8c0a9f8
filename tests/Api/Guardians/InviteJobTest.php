<?php

declare(strict_types=1);

use App\Guardians\GuardianWhom;
use App\Guardians\InviteDesk;
use App\Guardians\Jobs\InviteGuardians;
use App\Guardians\Standing;
use App\Models\InviteRun;
use App\Models\PrintState;
use App\Models\School;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

/** Students and a guardian of each, written at once. */
function families(World $world, int $count): void
{
    $rows = ['people' => [], 'guardianships' => []];
    for ($i = 0; $i < $count; $i++) {
        [$student, $guardian] = [(string) Str::ulid(), (string) Str::ulid()];
        foreach (
            [[$student, 'student', null], [$guardian, 'guardian', "g$i@shoremail.example"]]
            as [$id, $kind, $email]
        ) {
            $rows['people'][] = [
                'id' => $id,
                'version' => 0,
                'school_id' => $world->school,
                'kind' => $kind,
                'given_name' => ucfirst($kind) . $i,
                'family_name' => 'Haddad',
                'search_name' => "$kind$i haddad",
                'email' => $email,
                'state' => 'active',
            ];
        }
        $rows['guardianships'][] = [
            'id' => (string) Str::ulid(),
            'version' => 0,
            'student_id' => $student,
            'guardian_id' => $guardian,
            'state' => 'listed',
        ];
    }
    foreach ($rows as $table => $all) {
        foreach (array_chunk($all, 1000) as $chunk) {
            DB::table($table)->insert($chunk);
        }
    }
}

it('invites all of a school, each once, though the worker is killed half-way', function (): void {
    $own = (string) config('database.connections.mariadb.database');
    $database = $own . '_invite';
    ServerTestCase::useDatabase($database);
    config(['queue.default' => 'database']);
    $world = World::make();
    families($world, 1500);
    $run = app(InviteDesk::class)->begin(
        School::query()->findOrFail($world->school),
        new GuardianWhom(standing: Standing::Listed),
        $world->as('coordinator'),
    );
    expect($run->state)->toBe(PrintState::Waiting)->and($run->total)->toBe(1500);
    $process = proc_open(
        [PHP_BINARY, base_path('artisan'), 'queue:work', '--once', '--tries=3', '--timeout=300'],
        [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
        $pipes,
        base_path(),
        [
            ...getenv(),
            'DB_DATABASE' => $database,
            'QUEUE_CONNECTION' => 'database',
            'CACHE_STORE' => 'database',
            'DB_QUEUE_RETRY_AFTER' => '1',
        ],
    );
    expect($process)->toBeResource();
    $deadline = microtime(true) + 60;
    while (DB::table('outgoing_messages')->count() < 200 && microtime(true) < $deadline) {
        usleep(2000);
    }
    proc_terminate($process, 9);
    proc_close($process);
    $sent = DB::table('outgoing_messages')->count();
    expect($sent)->toBeGreaterThanOrEqual(200)->toBeLessThan(1500);
    // What is on its way is told, and the next worker goes on with the rest.
    $now = InviteRun::query()->findOrFail($run->id);
    expect($now->state)->toBe(PrintState::Working)->and($now->total)->toBe(1500);
    InviteGuardians::dispatchSync($run->id);
    $done = InviteRun::query()->findOrFail($run->id);
    expect([$done->state, $done->done, $done->said])
        ->toBe([PrintState::Done, 1500, 'Sends a link to 1,500 guardians, for 1,500 children.'])
        ->and(DB::table('outgoing_messages')->count())
        ->toBe(1500)
        ->and(DB::table('outgoing_messages')->distinct()->count('to_address'))
        ->toBe(1500)
        ->and(DB::table('guardian_invitations')->count())
        ->toBe(1500)
        ->and(DB::table('ledger_entries')->count())
        ->toBe(1);
    // A third run finds nothing to do.
    InviteGuardians::dispatchSync($run->id);
    expect(DB::table('outgoing_messages')->count())->toBe(1500);
    DB::statement("DROP DATABASE `$database`");
    ServerTestCase::useDatabase($own);
});
