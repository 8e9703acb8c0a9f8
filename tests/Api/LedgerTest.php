<?php

declare(strict_types=1);

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Ledger\StaleWords;
use App\Models\LedgerEntry;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

function ulid(): string
{
    return (string) Str::ulid();
}

/** Renames the student, makes a guardian and links the two. */
function somePlan(World $world, string $name = 'Mina'): Plan
{
    $plan = new PlanBuilder();
    $guardian = ulid();
    $plan->update(
        app(Snapshots::class)->find(Person::class, $world->people['student']),
        ['given_name' => $name, 'grade' => null],
        'renamed',
    );
    // In the wrong order on purpose: the ledger writes what others refer to first.
    $plan->insert(
        Entity::Guardianship,
        ulid(),
        [
            'student_id' => $world->people['student'],
            'guardian_id' => $guardian,
            'state' => 'listed',
            'relationship' => null,
            'restriction' => null,
        ],
        'linked',
    );
    $plan->insert(
        Entity::Person,
        $guardian,
        [
            'school_id' => $world->school,
            'kind' => 'guardian',
            'given_name' => 'Ann',
            'family_name' => 'O’Dwyer "Łukasz" 王',
            'search_name' => 'ann odwyer',
            'birth_date' => null,
            'number' => null,
            'grade' => null,
            'email' => 'ann@x.example',
            'phone' => null,
            'state' => 'active',
            'merged_into' => null,
        ],
        'made',
    );

    return $plan->build('Some plan', 'Does something.');
}

beforeEach(function (): void {
    $this->world = World::make();
    $this->ledger = app(Ledger::class);
});

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

it('shows entries with their records to the coordinator, and undoes them on request', function (): void {
    $entry = $this->ledger->apply(
        somePlan($this->world),
        $this->world->school,
        $this->world->as('coordinator'),
        Action::Place,
    );
    $as = $this->actingAs($this->world->as('coordinator'));
    $as->getJson("/api/schools/{$this->world->school}/ledger")
        ->assertOk()
        ->assertJsonPath('entries.0.title', 'Some plan')
        ->assertJsonPath('entries.0.actor', 'Ines Halloran')
        ->assertJsonPath('entries.0.canUndo', true);
    $as->getJson("/api/ledger/$entry->id")
        ->assertOk()
        ->assertJsonCount(3, 'changes')
        ->assertJsonFragment(['what' => 'person', 'record' => 'Mina Seabright']);
    $as->postJson("/api/ledger/$entry->id/undo")
        ->assertOk()
        ->assertJsonPath('canUndo', false);
    $as->postJson("/api/ledger/$entry->id/undo")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This has been undone already.');
    $as->getJson("/api/people/{$this->world->people['student']}")
        ->assertOk()
        ->assertJsonPath('history.0.title', 'Some plan');
});

it('names whatever was changed by what people call it', function (): void {
    $section = $this->world->section;
    $school = $this->world->school;
    $student = $this->world->people['student'];
    $this->postJson('/api/join/ask', [
        'code' => $this->world->code,
        'given_name' => 'Marlo',
        'family_name' => 'Quill',
        'birth_date' => '2010-05-04',
        'password' => 'green boat stone',
    ])->assertOk();
    $asking = DB::table('join_requests')->value('id');
    $as = $this->actingAs($this->world->as('coordinator'));
    $named = function () use ($as, $school): array {
        $entry = $as->getJson("/api/schools/$school/ledger")->json('entries.0.id');

        return array_map(
            fn(array $c): string => "{$c['what']} {$c['record']}",
            $as
                ->getJson("/api/ledger/$entry")
                ->assertOk()
                ->json('changes'),
        );
    };
    $does = [
        [fn() => $as->postJson("/api/sections/$section/requests/$asking/refuse"), ['request Marlo Quill']],
        [fn() => $as->postJson("/api/sections/$section/code"), ['join code 3 Heron', 'join code 3 Heron']],
        [
            fn() => $as->postJson("/api/sections/$section/invitations", [
                'email' => 'n.q@lanternfield.example',
                'role' => 'co_teacher',
            ]),
            ['invitation n.q@lanternfield.example'],
        ],
        [
            fn() => $as->postJson("/api/sections/$section/room-pass", ['hours' => 'any', 'paper' => 'a4']),
            ['room pass 3 Heron'],
        ],
        [
            fn() => $as->postJson("/api/schools/$school/settings", ['name' => 'Lanternfield First']),
            ['school Lanternfield First'],
        ],
        [
            fn() => $as->postJson("/api/schools/$school/years", [
                'name' => '2027-28',
                'begins_on' => '2027-08-23',
                'last_on' => '2028-06-09',
            ]),
            ['school year 2027-28'],
        ],
        [
            fn() => $as->postJson('/api/years/' . DB::table('school_years')->where('name', '2027-28')->value('id'), [
                'name' => '2027-28',
                'begins_on' => '2027-08-30',
                'last_on' => '2028-06-09',
            ]),
            ['school year 2027-28'],
        ],
        [
            fn() => $as->postJson("/api/sections/$section", [
                'name' => '3 Grebe',
                'kind' => 'homeroom',
                'grade' => '3',
            ]),
            ['section 3 Grebe'],
        ],
    ];
    foreach ($does as [$do, $records]) {
        $do()->assertSuccessful();
        expect($named())->toBe($records);
    }
    $plan = $as->postJson("/api/sections/$section/place/plan", ['kind' => 'remove', 'people' => [$student]])->json();
    $as->postJson("/api/sections/$section/place", [
        'kind' => 'remove',
        'people' => [$student],
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
    ])->assertOk();
    expect($named())->toBe(['enrollment Wilhelmina Seabright in 3 Grebe']);
    $this->ledger->apply(somePlan($this->world), $school, null, Action::Place);
    expect($named())->toEqualCanonicalizing([
        'person Mina Seabright',
        'person Ann O’Dwyer "Łukasz" 王',
        'guardian Ann O’Dwyer "Łukasz" 王 for Mina',
    ]);
    $as->postJson("/api/sections/{$this->world->otherSection}/code")->assertOk();
    DB::table('sections')
        ->where('id', $this->world->otherSection)
        ->update(['name' => '3 Plover renamed']);
    expect($named())->toBe(['join code 3 Plover renamed']);
});

it('undoes from the command line, lists what stays, and says why not', function (): void {
    $entry = $this->ledger->apply(somePlan($this->world), $this->world->school, null, Action::Place);
    DB::table('people')
        ->where('id', $this->world->people['student'])
        ->update(['version' => 9_999, 'given_name' => 'Changed']);
    expect(Artisan::call('vantrel:undo', ['entry' => ulid()]))
        ->toBe(2)
        ->and(Artisan::output())
        ->toContain('no such entry');
    expect(Artisan::call('vantrel:undo', ['entry' => $entry->id]))->toBe(0);
    expect(Artisan::output())->toContain('Undone: Some plan')->toContain('Stays: ')->toContain('Changed Seabright');
    expect(Artisan::call('vantrel:undo', ['entry' => $entry->id]))
        ->toBe(1)
        ->and(Artisan::output())
        ->toContain('undone already');
});

it('says of any stale record what it is', function (): void {
    $world = $this->world;
    $enrollment = DB::table('enrollments')->where('person_id', $world->people['student'])->value('id');
    $signIn = DB::table('sign_ins')->where('person_id', $world->people['student'])->first();
    expect(
        StaleWords::of([
            "people {$world->people['student']}",
            "sections $world->section",
            "enrollments $enrollment",
            "sign_ins $signIn->id",
            'join_codes x',
            'invitations x',
            'badges x',
            'school_years x',
            'guardianships x',
            'room_passes x',
            'people gone',
            'join_codes y',
        ]),
    )->toBe([
        'Wilhelmina Seabright',
        '3 Heron',
        'Wilhelmina Seabright in 3 Heron',
        $signIn->user_name,
        'a join code',
        'an invitation',
        'a card',
        'the school year',
        'a guardian',
        'a record',
    ]);
});
