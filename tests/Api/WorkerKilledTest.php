<?php

declare(strict_types=1);

use App\Models\Intake;
use App\Models\IntakeState;
use Illuminate\Support\Facades\DB;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

/** Starts a real worker on the database at hand and gives its process. @return resource */
function worker(string $database)
{
    $environment = [
        ...getenv(),
        'DB_DATABASE' => $database,
        'QUEUE_CONNECTION' => 'database',
        'CACHE_STORE' => 'database',
        'VANTREL_PROGRESS_CONNECTION' => 'progress',
        'DB_QUEUE_RETRY_AFTER' => '1',
    ];
    $process = proc_open(
        [PHP_BINARY, base_path('artisan'), 'queue:work', '--once', '--tries=3', '--timeout=300'],
        [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
        $pipes,
        base_path(),
        $environment,
    );
    expect($process)->toBeResource();

    return $process;
}

it('leaves all or nothing when the worker is killed in the middle, and can be run again', function (): void {
    // Others must see what is written, so this test commits, into a database of its own.
    $own = (string) config('database.connections.mariadb.database');
    $database = $own . '_kill';
    ServerTestCase::useDatabase($database);
    config(['queue.default' => 'database']);
    $world = World::make();
    $csv = "Name,Grade,Homeroom,Guardian,Guardian email\n";
    for ($i = 0; $i < 6000; $i++) {
        $csv .=
            'Pupil' .
            chr(97 + ($i % 26)) .
            chr(97 + (intdiv($i, 26) % 26)) .
            chr(97 + intdiv($i, 676)) .
            ' Family' .
            chr(97 + ($i % 23)) .
            chr(97 + ($i % 19)) .
            ",3,3 Heron,Parent Number$i,p$i@x.example\n";
    }
    $file = scratch() . '/big.csv';
    file_put_contents($file, $csv);
    $id = $world->insert(
        'imports',
        [
            'school_id' => $world->school,
            'title' => 'big',
            'files' => json_encode([['file' => App\Intake\ListFiles::copy($file), 'title' => 'big']]),
            'state' => 'reading',
            'answers' => '{}',
            'round' => 1,
            'made_at' => now(),
            'changed_at' => now(),
        ],
        false,
    );
    App\Intake\Jobs\PlanIntake::dispatchSync($id, 1);
    $intake = Intake::query()->findOrFail($id);
    expect($intake->state)->toBe(IntakeState::Planned);
    $before = World::checksum();
    DB::table('imports')
        ->where('id', $id)
        ->update(['state' => 'applying', 'done' => 0]);
    App\Intake\Jobs\ApplyIntake::dispatch($id, 1, (string) $intake->fingerprint, null);
    $process = worker($database);
    $deadline = microtime(true) + 60;
    // Progress is written outside the transaction: once it moves, the writing has begun and is not done.
    while ((int) DB::table('imports')->where('id', $id)->value('done') < 2000 && microtime(true) < $deadline) {
        usleep(2000);
    }
    expect((int) DB::table('imports')->where('id', $id)->value('done'))
        ->toBeGreaterThanOrEqual(2000)
        ->toBeLessThan(Intake::query()->findOrFail($id)->total);
    proc_terminate($process, 9);
    proc_close($process);
    expect(World::checksum())
        ->toBe($before)
        ->and(DB::table('ledger_entries')->count())
        ->toBe(0)
        ->and(Intake::query()->findOrFail($id)->state)
        ->toBe(IntakeState::Applying);
    sleep(2);
    proc_close(worker($database));
    expect(Intake::query()->findOrFail($id)->state)
        ->toBe(IntakeState::Applied)
        ->and(DB::table('people')->where('kind', 'student')->count())
        ->toBe(6001)
        ->and(DB::table('ledger_entries')->count())
        ->toBe(1);
    DB::statement("DROP DATABASE `$database`");
    ServerTestCase::useDatabase($own);
});
