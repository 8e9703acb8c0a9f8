<?php

declare(strict_types=1);

use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\SignIn;

beforeEach(fn() => readyForTheLedger($this));

it('applies a plan whole and undoes it byte for byte', function (): void {
    $before = World::checksum();
    $entry = $this->ledger->apply(
        somePlan($this->world),
        $this->world->school,
        $this->world->as('coordinator'),
        Action::Place,
    );
    expect(World::checksum())
        ->not->toBe($before)
        ->and(DB::table('people')->where('email', 'ann@x.example')->value('family_name'))
        ->toBe('O’Dwyer "Łukasz" 王')
        ->and(DB::table('people')->where('id', $this->world->people['student'])->value('grade'))
        ->toBeNull();
    $undone = $this->ledger->undo($entry, $this->world->as('coordinator'));
    expect(World::checksum())->toBe($before)->and($undone->kept)->toBe([])->and($undone->undone_at)->not->toBeNull();
});

it('refuses a plan made from a state that is gone, and writes nothing', function (): void {
    $plan = somePlan($this->world);
    $this->ledger->apply(somePlan($this->world, 'Willa'), $this->world->school, null, Action::Place);
    $before = World::checksum();
    expect(fn() => $this->ledger->apply($plan, $this->world->school, null, Action::Place))
        ->toThrow(StalePlan::class)
        ->and(World::checksum())
        ->toBe($before)
        ->and(LedgerEntry::query()->where('action', 'second')->exists())
        ->toBeFalse();
});

it('names in words what has changed', function (): void {
    $plan = somePlan($this->world);
    $this->ledger->apply(somePlan($this->world, 'Willa'), $this->world->school, null, Action::Place);
    try {
        $this->ledger->apply($plan, $this->world->school, null, Action::Place);
    } catch (StalePlan $e) {
        expect($e->changed)->toBe(['Willa Seabright']);
    }
});

it('does not mistake a state that came back for one that never went', function (): void {
    // A plan from before, something applied and undone: the contents are the same, so it may be applied.
    $plan = somePlan($this->world);
    $this->ledger->undo(
        $this->ledger->apply(somePlan($this->world, 'Willa'), $this->world->school, null, Action::Place),
        null,
    );
    $second = $this->ledger->apply($plan, $this->world->school, null, Action::Place);
    // A plan from between must not be, once something else has been applied.
    $between = somePlan($this->world, 'Wilma');
    $this->ledger->undo($second, null);
    $this->ledger->apply(somePlan($this->world, 'Other'), $this->world->school, null, Action::Place);
    expect(fn() => $this->ledger->apply($between, $this->world->school, null, Action::Place))->toThrow(
        StalePlan::class,
    );
});

it('leaves what has changed since as it is, and says so', function (): void {
    $first = $this->ledger->apply(somePlan($this->world), $this->world->school, null, Action::Place);
    $this->ledger->apply(somePlan($this->world, 'Willa'), $this->world->school, null, Action::Place);
    $undone = $this->ledger->undo($first, null);
    expect(DB::table('people')->where('id', $this->world->people['student'])->value('given_name'))
        ->toBe('Willa')
        ->and($undone->kept)
        ->toContain('Willa Seabright: changed since')
        ->and(DB::table('people')->where('email', 'ann@x.example')->count())
        ->toBe(1);
});

it('keeps a person others refer to by now, and an account that was signed in to', function (): void {
    $plan = new PlanBuilder();
    [$used, $unused] = [ulid(), ulid()];
    foreach ([$used, $unused] as $i => $id) {
        $plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $this->world->school,
                'kind' => 'student',
                'given_name' => "New$i",
                'family_name' => 'Pupil',
                'search_name' => 'new pupil',
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                'email' => null,
                'phone' => null,
                'state' => 'active',
                'merged_into' => null,
            ],
            'made',
        );
        $plan->insert(
            Entity::SignIn,
            ulid(),
            ['person_id' => $id, 'user_name' => "new$i", 'passphrase' => null, 'password' => null],
            'made',
        );
    }
    $entry = $this->ledger->apply($plan->build('Two', 'Two.'), $this->world->school, null, Action::Place);
    DB::table('sign_ins')
        ->where('user_name', 'new0')
        ->update(['last_signed_in_at' => now()]);
    $undone = $this->ledger->undo($entry, null);
    expect(DB::table('people')->where('id', $used)->exists())
        ->toBeTrue()
        ->and(DB::table('people')->where('id', $unused)->exists())
        ->toBeFalse()
        ->and($undone->kept)
        ->toContain('new0: signed in to since')
        ->toContain('New0 Pupil: in use since');
});

it('undoes once, in time, and never an undo', function (): void {
    $entry = $this->ledger->apply(somePlan($this->world), $this->world->school, null, Action::Place);
    $this->ledger->undo($entry, null);
    expect(fn() => $this->ledger->undo($entry, null))->toThrow(Refusal::class, 'already');
    $old = $this->ledger->apply(somePlan($this->world, 'Old'), $this->world->school, null, Action::Place);
    DB::table('ledger_entries')
        ->where('seq', $old->seq)
        ->update(['made_at' => now()->subDays(15)]);
    expect(fn() => $this->ledger->undo($old, null))->toThrow(Refusal::class, '14 days');
});

it('writes one entry for one piece of work, however often it is run', function (): void {
    $plan = somePlan($this->world);
    $first = $this->ledger->apply($plan, $this->world->school, null, Action::Place, 'work:1');
    expect($this->ledger->apply($plan, $this->world->school, null, Action::Place, 'work:1')->seq)
        ->toBe($first->seq)
        ->and(LedgerEntry::query()->count())
        ->toBe(1);
});

it('keeps no secret, and no hash of one, in its images', function (): void {
    $plan = new PlanBuilder();
    $row = app(Snapshots::class)->list(
        SignIn::class,
        fn($q) => $q->where('person_id', $this->world->people['student']),
    )[0];
    $plan->update($row, ['passphrase' => 'sealed-secret'], 'card');
    $plan->insert(
        Entity::Badge,
        ulid(),
        [
            'sign_in_id' => $row->id,
            'token_hash' => str_repeat('f', 64),
            'state' => 'live',
            'made_at' => '2026-09-01 10:00:00',
            'ended_at' => null,
        ],
        'card',
    );
    $before = World::checksum();
    $entry = $this->ledger->apply($plan->build('Cards', 'Cards.'), $this->world->school, null, Action::Cards);
    $images = DB::table('ledger_changes')->get()->map(fn(object $c): string => $c->before . $c->after)->implode('');
    expect($images)->not->toContain('sealed-secret')->not->toContain(str_repeat('f', 64));
    // The passphrase was absent before, so undo makes it absent again.
    $this->ledger->undo($entry, null);
    expect(World::checksum())->toBe($before);
});

it('applies nothing that is blocked', function (): void {
    $plan = new PlanBuilder();
    $plan->block('Not now.');
    $this->ledger->apply($plan->build('Blocked', ''), $this->world->school, null, Action::Place);
})->throws(Refusal::class, 'Not now.');
