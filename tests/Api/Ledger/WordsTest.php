<?php

declare(strict_types=1);

use App\Ledger\StaleWords;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;

beforeEach(fn() => readyForTheLedger($this));

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
            'join_codes ' . DB::table('join_codes')->where('section_id', $world->section)->value('id'),
            "school_years $world->year",
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
        'the join code of 3 Heron',
        'the school year ' . DB::table('school_years')->where('id', $world->year)->value('name'),
        'an invitation',
        'a card',
        'the school year',
        'a guardian',
        'a room pass',
        'a record',
    ]);
});
