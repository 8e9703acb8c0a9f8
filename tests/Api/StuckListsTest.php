<?php

declare(strict_types=1);

use App\Intake\Jobs\ApplyIntake;
use App\Intake\Jobs\PlanIntake;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// A kill between a click and its job leaves no list that says "being applied" for ever.

beforeEach(function (): void {
    $this->world = World::make();
    $this->actingAs($this->world->as('coordinator'));
    $this->csv = "Name,Birth date,Student number,Grade\nCorin Quill,2017-03-03,040001,3\n";
    $this->send = fn() => $this->post(
        "/api/schools/{$this->world->school}/intakes",
        ['files' => [UploadedFile::fake()->createWithContent('list.csv', $this->csv)]],
        ['Accept' => 'application/json'],
    );
    $this->queued = function (): void {
        config(['queue.default' => 'database']);
    };
    // As if the machine had stopped just as the job was being written down.
    $this->killAtJob = function (): void {
        DB::connection()->beforeExecuting(function (string $sql): void {
            if ($this->armed ?? false) {
                if (str_starts_with($sql, 'insert into `jobs`')) {
                    throw new RuntimeException('cut off');
                }
            }
        });
        $this->armed = true;
    };
    $this->old = fn(string $id, array $values = []) => DB::table('imports')
        ->where('id', $id)
        ->update([...$values, 'changed_at' => now()->subMinutes(2)]);
});

it('writes a list and its job together, or neither', function (): void {
    ($this->queued)();
    ($this->killAtJob)();
    ($this->send)()->assertStatus(500);
    $this->armed = false;
    expect(DB::table('imports')->count())->toBe(0);
    $id = ($this->send)()->assertOk()->json('id');
    expect(
        DB::table('jobs')
            ->where('payload', 'like', "%$id%")
            ->count(),
    )
        ->toBe(1)
        ->and(DB::table('imports')->value('state'))
        ->toBe('reading');
});

it('leaves a plan a plan where the click that applies it was cut off', function (): void {
    $id = ($this->send)()->assertOk()->json('id');
    $fingerprint = $this->getJson("/api/intakes/$id")
        ->assertJsonPath('state', 'planned')
        ->json('fingerprint');
    ($this->queued)();
    ($this->killAtJob)();
    $this->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])->assertStatus(500);
    $this->armed = false;
    expect(DB::table('imports')->value('state'))
        ->toBe('planned')
        ->and(DB::table('jobs')->count())
        ->toBe(0);
    $this->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])
        ->assertOk()
        ->assertJsonPath('state', 'applying');
    expect(DB::table('jobs')->count())->toBe(1);
    // While it waits it cannot be thrown away, and is not said to have been applied.
    $this->deleteJson("/api/intakes/$id")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This list is being applied. Wait until it is done, then undo it in the Ledger.');
});

it('gives a list back that nothing works on, and no other', function (string $state): void {
    $id = ($this->send)()->assertOk()->json('id');
    ($this->queued)();
    ($this->old)($id, ['state' => $state, 'done' => 1500, 'total' => 10000]);
    $round = (int) DB::table('imports')->value('round');
    // It has a job: it is left alone, however long it waits.
    $state === 'applying' ? ApplyIntake::dispatch($id, $round, 'f', null) : PlanIntake::dispatch($id, $round);
    $this->artisan('vantrel:sweep')->expectsOutput('Nothing is stuck.')->assertExitCode(0);
    DB::table('jobs')->delete();
    // It has only just been written.
    DB::table('imports')->update(['changed_at' => now()]);
    $this->artisan('vantrel:sweep')->expectsOutput('Nothing is stuck.')->assertExitCode(0);
    ($this->old)($id);
    expect($this->getJson("/api/intakes/$id")->json('quiet'))->toBeGreaterThan(100);
    $this->artisan('vantrel:sweep')->expectsOutput('1 given back.')->assertExitCode(0);
    $list = DB::table('imports')->first();
    expect($list->state)
        ->toBe('reading')
        ->and((int) $list->round)
        ->toBe($round + 1)
        ->and((int) $list->done)
        ->toBe(0)
        ->and(
            DB::table('jobs')
                ->where('payload', 'like', "%$id%")
                ->count(),
        )
        ->toBe(1)
        ->and((string) $list->message)
        ->toContain($state === 'applying' ? 'nothing of it was written' : '');
    // A job of the round before that turns up after all does nothing.
    $this->app->call([new ApplyIntake($id, $round, 'f', null), 'handle']);
    expect(DB::table('ledger_entries')->count())->toBe(0);
    $this->deleteJson("/api/intakes/$id")->assertNoContent();
})->with(['reading', 'applying']);

it('sweeps every minute', function (): void {
    $events = collect(app(Illuminate\Console\Scheduling\Schedule::class)->events());
    expect(
        $events
            ->map(fn($e): string => $e->expression . ' ' . substr((string) strrchr((string) $e->command, ' '), 1))
            ->all(),
    )->toContain('* * * * * vantrel:sweep');
});

it('refuses a list of more students than it can hold, and says what to do', function (): void {
    $this->csv =
        "Name,Student number\n" .
        implode(
            '',
            array_map(
                fn(int $i): string => 'Ada Quill' .
                    chr(97 + ($i % 26)) .
                    chr(97 + (intdiv($i, 26) % 26)) .
                    chr(97 + intdiv($i, 676)) .
                    ',' .
                    (100000 + $i) .
                    "\n",
                range(1, 15_001),
            ),
        );
    $id = ($this->send)()->assertOk()->json('id');
    $this->getJson("/api/intakes/$id")
        ->assertJsonPath('state', 'unreadable')
        ->assertJsonPath(
            'message',
            'The list names more than 15,000 students. Split it, by school or by grade, and drop the parts ' .
                'in one after the other.',
        );
    expect(DB::table('people')->where('given_name', 'Ada')->exists())->toBeFalse();
});
