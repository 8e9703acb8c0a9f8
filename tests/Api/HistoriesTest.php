<?php

declare(strict_types=1);

use App\Roll\KeptProblems;
use Illuminate\Support\Facades\DB;
use Tests\Support\Histories\Histories;
use Tests\Support\Histories\MemoryHouse;
use Tests\Support\Histories\Player;
use Tests\Support\Histories\RealHouse;
use Tests\Support\Histories\Together;
use Tests\Support\RandomSchool;
use Tests\Support\ServerTestCase;
use Vantrel\Core\Plan\Snapshot;

/** @return list<string> who has which problem, as whoever looks is told: those marked are settled first */
function keptProblems(): array
{
    app(KeptProblems::class)->settle();

    return DB::table('roll_problems')
        ->selectRaw("concat_ws(' ', school_id, problem, person_id) line")
        ->orderBy('line')
        ->pluck('line')
        ->all();
}

/** From the records alone, what otherwise follows them entry by entry. */
function problemsAnew(): array
{
    DB::table('schools')->pluck('id')->each(app(KeptProblems::class)->all(...));

    return keptProblems();
}

beforeEach(function (): void {
    $this->own = (string) config('database.connections.mariadb.database');
    ServerTestCase::useDatabase($this->own . '_histories');
});

afterEach(function (): void {
    ServerTestCase::useDatabase($this->own);
});

it('does step by step in the database what the model does in memory', function (): void {
    // Versions are numbers of entries, which the database counts further; columns a row was made without have their
    // defaults there.
    $contents = fn(Snapshot $s): array => array_map(
        fn(array $rows): array => array_map(
            fn(array $row): array => array_filter($row[1], fn(mixed $v): bool => $v !== null),
            $rows,
        ),
        RandomSchool::contents($s),
    );
    for ($seed = 1; $seed <= 60; $seed++) {
        RealHouse::reset();
        $real = new RealHouse();
        problemsAnew();
        $model = new MemoryHouse($real->snapshot(), $real->snapshot()->schools);
        $inDatabase = new Player($real, 'x');
        $inMemory = new Player($model, 'x');
        foreach (Histories::random($seed, 10) as $n => $step) {
            expect("seed $seed, step $n $step: " . $inDatabase->play($step))->toBe(
                "seed $seed, step $n $step: " . $inMemory->play($step),
            );
            // Now and then somebody looks in between, as on a Desk.
            if ($n % 3 === 0) {
                app(KeptProblems::class)->settle();
            }
            $should = $contents($model->snapshot());
            $is = $contents($real->snapshot());
            foreach ($is as $table => $rows) {
                foreach ($rows as $id => $row) {
                    $is[$table][$id] = array_intersect_key($row, $should[$table][$id] ?? $row);
                }
            }
            expect(["seed $seed, step $n $step", $is])->toEqual(["seed $seed, step $n $step", $should]);
        }
        expect(["seed $seed", keptProblems()])->toBe(["seed $seed", problemsAnew()]);
    }
});

it('keeps its word to several who work at once, one of whom may be cut off', function (): void {
    $together = new Together();
    for ($seed = 1; $seed <= 40; $seed++) {
        $steps = Histories::random($seed, 15, 3, $seed % 3 === 0);
        expect("seed $seed: " . $together->play($steps, $seed % 4 === 0 ? 10 + $seed * 5 : null))->toBe("seed $seed: ");
    }
    expect($together->turnedBack)
        ->toBeGreaterThan(15)
        ->and($together->killed)
        ->toBe(10)
        ->and($together->outcomes['done'])
        ->toBeGreaterThan(200)
        ->and($together->outcomes['stale'] ?? 0)
        ->toBeGreaterThan(5);
});
