<?php

declare(strict_types=1);

use App\Ledger\Ledger;
use App\Models\LedgerEntry;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Str;
use Tests\Support\Statements;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;

// What each kind of request asks of the database, at most, as a browser asks it: by a session. Its own two statements
// are not counted, for here it is kept in memory. A new capability keeps to these; where one fails, its message lists
// what was sent.

beforeEach(function (): void {
    $this->world = World::make();
    Queue::fake();
    $this->at = "/api/schools/{$this->world->school}";
    $this->in = function (string $person, string $name): void {
        DB::table('sign_ins')->where('person_id', $person)->delete();
        $this->world->signIn($person, $name, null, 'lantern harbor morning');
        $this->postJson('/api/sign-in', ['user_name' => $name, 'secret' => 'lantern harbor morning'])->assertOk();
    };
    // Each request begins without what one before has kept.
    $this->fresh = function (): void {
        SchoolDay::forget();
        $this->app['auth']->forgetGuards();
    };
});

it('joins within its budget', function (): void {
    $student = $this->world->student('Noor Haddad', null, ['grade' => '03']);
    ($this->in)($student, 'noor.haddad.2');
    ($this->fresh)();
    Statements::atMost(14, fn() => $this->postJson('/api/join', ['code' => $this->world->code])->assertOk());
});

it('signs in within its budget', function (string $role): void {
    ($this->in)($this->world->people[$role], 'somebody');
    ($this->fresh)();
    DB::table('sign_ins')->update(['last_signed_in_at' => null]);
    $this->flushSession();
    Statements::atMost(
        12,
        fn() => $this->postJson('/api/sign-in', [
            'user_name' => 'somebody',
            'secret' => 'lantern harbor morning',
        ])->assertOk(),
    );
})->with(['guardian', 'student', 'lead', 'coordinator']);

it('asks no more for many than for few', function (): void {
    ($this->in)($this->world->people['coordinator'], 'coordinator');
    $get = function (string $at): void {
        ($this->fresh)();
        $this->getJson($at)->assertOk();
    };
    $ask = fn(string $at): int => count(Statements::of(fn() => $get($at)));
    $pages = [
        "$this->at/desk" => 8,
        "$this->at/people?kind=student" => 4,
        "$this->at/people?kind=student&problem=never_signed_in" => 5,
        "/api/people/{$this->world->people['student']}" => 7,
        "/api/sections/{$this->world->section}" => 12,
        "/api/sections/{$this->world->section}/code" => 4,
        "$this->at/find?q=haddad" => 6,
    ];
    $this->world->lookThrough();
    // What is worked out once a day, or by whoever looks first, is not counted.
    array_map($ask, array_keys($pages));
    $few = array_map($ask, array_combine(array_keys($pages), array_keys($pages)));
    for ($i = 0; $i < 30; $i++) {
        $this->world->student("Pupil$i Haddad", $this->world->section, ['grade' => '03']);
    }
    $this->world->lookThrough();
    array_map($ask, array_keys($pages));
    foreach ($pages as $at => $budget) {
        expect([$at, $ask($at)])->toBe([$at, $few[$at]]);
        Statements::atMost($budget, fn() => $get($at));
    }
});

it('applies, undoes and does again within budgets that grow with every 500 rows only', function (): void {
    $apply = function (int $people): LedgerEntry {
        $plan = new PlanBuilder();
        for ($i = 0; $i < $people; $i++) {
            $id = (string) Str::ulid();
            $plan->insert(
                Entity::Person,
                $id,
                [
                    'school_id' => $this->world->school,
                    'kind' => 'student',
                    'given_name' => "Pupil$i",
                    'family_name' => 'Vale',
                    'search_name' => "pupil$i vale",
                    'state' => 'active',
                ],
                'test',
            );
            $plan->insert(
                Entity::Enrollment,
                (string) Str::ulid(),
                [
                    'section_id' => $this->world->section,
                    'person_id' => $id,
                    'role' => 'student',
                    'begins_on' => '2026-09-01',
                    'ends_on' => null,
                    'source' => 'hand',
                ],
                'test',
            );
        }

        return app(Ledger::class)->apply($plan->build('Test', 'Test.'), $this->world->school, null, Action::Place);
    };
    $sent = ['apply' => [], 'undo' => [], 'redo' => []];
    foreach ([10, 500, 1500] as $people) {
        $entry = null;
        $sent['apply'][] = count(
            Statements::of(function () use ($apply, $people, &$entry): void {
                $entry = $apply($people);
            }),
        );
        $sent['undo'][] = count(Statements::of(fn() => app(Ledger::class)->undo($entry, null)));
        $undone = LedgerEntry::query()->where('seq', $entry->seq)->firstOrFail();
        $sent['redo'][] = count(Statements::of(fn() => app(Ledger::class)->redo($undone, null)));
        DB::table('roll_stale')->delete();
    }
    $grows = fn(string $what): int => intdiv($sent[$what][2] - $sent[$what][1], 2);
    expect($sent['apply'][0])
        ->toBeLessThanOrEqual(12)
        ->and($grows('apply'))
        ->toBeLessThanOrEqual(6)
        ->and($grows('undo'))
        ->toBeLessThanOrEqual(6)
        ->and($grows('redo'))
        ->toBeLessThanOrEqual(6)
        ->and($sent['undo'][0])
        ->toBeLessThanOrEqual(18)
        ->and($sent['redo'][0])
        ->toBeLessThanOrEqual(38);
});
