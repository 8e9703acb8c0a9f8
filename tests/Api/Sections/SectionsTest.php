<?php

declare(strict_types=1);

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Uid\Ulid;
use Tests\Support\World;

beforeEach(fn() => readyInSections($this));

it('moves students on a day, and every roster of a day stays what it was', function (): void {
    $this->world->enroll($this->world->otherSection, $this->world->people['co_teacher'], 'co_teacher');
    $noor = $this->world->student('Noor Haddad', $this->section);
    $before = World::checksum();
    ($this->as)('co_teacher');
    ($this->apply)("/api/sections/$this->section/place", [
        'kind' => 'move',
        'people' => [$noor],
        'to' => $this->world->otherSection,
        'day' => ($this->day)(3),
    ])->assertOk();
    expect($this->plan['sentence'])
        ->toContain('1 student moves from 3 Heron to 3 Plover')
        ->and(($this->names)($this->section))
        ->toContain('Noor Haddad')
        ->and(($this->names)($this->world->otherSection))
        ->not->toContain('Noor Haddad')
        ->and(($this->names)($this->section, ($this->day)(2)))
        ->toContain('Noor Haddad')
        ->and(($this->names)($this->section, ($this->day)(3)))
        ->not->toContain('Noor Haddad')
        ->and(($this->names)($this->world->otherSection, ($this->day)(3)))
        ->toContain('Noor Haddad')
        ->and(($this->names)($this->section, '2026-08-23'))
        ->toBe([]);
    $entry = DB::table('ledger_entries')->value('id');
    ($this->as)('coordinator')
        ->postJson("/api/ledger/$entry/undo")
        ->assertOk();
    expect(World::checksum())->toBe($before);
});

it('looks again at a plan that is a day old, and takes no seed that no plan had', function (): void {
    ($this->as)('coordinator');
    $body = ['how' => 'list', 'kind' => 'class', 'text' => 'Choir'];
    $uri = "/api/schools/$this->school/many-sections";
    $plan = $this->postJson("$uri/plan", $body)
        ->assertOk()
        ->json();
    $seen = [...$body, 'fingerprint' => $plan['fingerprint']];
    $this->postJson($uri, [...$seen, 'seed' => str_repeat('U', 26)])
        ->assertStatus(422)
        ->assertJsonValidationErrors('seed');
    $this->postJson($uri, [...$seen, 'seed' => Ulid::generate(now()->addHour())])->assertStatus(409);
    $this->travel(25)->hours();
    $this->flushSession();
    $this->actingAs($this->world->as('coordinator'))
        ->postJson($uri, [...$seen, 'seed' => $plan['seed']])
        ->assertStatus(409);
    expect(DB::table('sections')->where('name', 'Choir')->exists())->toBeFalse();
});

it('keeps a plan to the day it was looked at on, past midnight', function (): void {
    DB::table('schools')
        ->where('id', $this->school)
        ->update(['time_zone' => 'America/New_York']);
    $this->travelTo(CarbonImmutable::parse('2026-11-23 23:59:30', 'America/New_York'));
    ($this->as)('lead');
    ($this->apply)("/api/sections/$this->section/place", [
        'kind' => 'remove',
        'people' => [$this->world->people['student']],
    ])->assertOk();
    expect(now('America/New_York')->format('Y-m-d H:i'))
        ->toBe('2026-11-24 00:01')
        ->and(DB::table('enrollments')->where('person_id', $this->world->people['student'])->value('ends_on'))
        ->toBe('2026-11-23');
    $plan = ($this->as)('coordinator')
        ->getJson("/api/sections/$this->section/archive")
        ->assertOk()
        ->json();
    $this->travel(1)->hours();
    $this->postJson("/api/sections/$this->section/archive", [
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
    ])->assertOk();
    expect(DB::table('sections')->where('id', $this->section)->value('archived_on'))->toBe('2026-11-24');
});

it('takes several out in one plan, as one entry', function (): void {
    $ids = [
        $this->world->people['student'],
        $this->world->student('Noor Haddad', $this->section),
        $this->world->student('Kai Wu', $this->section),
    ];
    ($this->as)('lead');
    ($this->apply)("/api/sections/$this->section/place", ['kind' => 'remove', 'people' => $ids])
        ->assertOk()
        ->assertJsonPath('roster', []);
    expect(DB::table('ledger_entries')->count())
        ->toBe(1)
        ->and(DB::table('enrollments')->whereIn('person_id', $ids)->pluck('ends_on')->unique()->all())
        ->toBe([$this->today]);
    $this->postJson("/api/sections/$this->section/place", [
        'kind' => 'remove',
        'people' => $ids,
        'seed' => str_repeat('0', 26),
        'fingerprint' => str_repeat('0', 64),
    ])->assertStatus(409);
});

it('places the unplaced, and says where periods clash and seats run out', function (): void {
    $noor = $this->world->student('Noor Haddad');
    $art = $this->world->section($this->school, 'Art');
    $choir = $this->world->section($this->school, 'Choir');
    DB::table('sections')
        ->whereIn('id', [$art, $choir])
        ->update(['period' => '2', 'seats' => 1]);
    $this->world->enroll($art, $noor, 'student');
    $this->world->enroll($choir, $this->world->people['student'], 'student');
    ($this->as)('coordinator');
    ($this->apply)("/api/schools/$this->school/place", ['people' => [$noor], 'to' => $choir])->assertOk();
    expect($this->plan['warnings'])->toBe([
        'Noor Haddad: period 2 clashes with Art',
        'Choir would have 2 students for 1 seat.',
    ]);
    expect(
        collect($this->getJson("/api/schools/$this->school/sections")->json('sections'))->firstWhere('name', 'Choir'),
    )
        ->toMatchArray(['clashes' => 1, 'seats' => 1, 'students' => 2, 'period' => '2'])
        ->and(collect($this->getJson("/api/sections/$choir")->json('roster'))->firstWhere('id', $noor)['clash'])
        ->toBe('Art');
    $foreign = $this->world->person($this->world->otherSchool, 'student', 'Zoe Ash');
    $this->postJson("/api/schools/$this->school/place/plan", ['people' => [$foreign], 'to' => $choir])->assertStatus(
        422,
    );
});

it('makes many sections from a list, a pattern and another year, as looked at', function (): void {
    ($this->as)('coordinator');
    $uri = "/api/schools/$this->school/many-sections";
    ($this->apply)($uri, [
        'how' => 'list',
        'kind' => 'class',
        'text' => "Art 3\t3\t2\t24\tPetra Okonjo\n3 Heron\nMusic 3",
    ])->assertOk();
    expect(array_column($this->plan['tallies'], 'count', 'key'))->toBe(['sections' => 2, 'same' => 1]);
    ($this->apply)($uri, [
        'how' => 'pattern',
        'kind' => 'class',
        'subject' => 'Drama',
        'grades' => ['K', '1'],
        'groups' => 'A, B',
        'pattern' => '{subject} {grade}{group}',
    ])->assertOk();
    expect(DB::table('sections')->where('name', 'like', 'Drama%')->orderBy('name')->pluck('name')->all())->toBe([
        'Drama 1A',
        'Drama 1B',
        'Drama KA',
        'Drama KB',
    ]);
    $next = $this->postJson("/api/schools/$this->school/years", [
        'name' => '2027-28',
        'begins_on' => '2027-08-23',
        'last_on' => '2028-06-09',
    ])
        ->assertOk()
        ->json('years.0');
    expect($next)->toMatchArray(['name' => '2027-28', 'state' => 'planned']);
    ($this->apply)($uri, [
        'how' => 'year',
        'kind' => 'class',
        'from' => $this->world->year,
        'year' => $next['id'],
    ])->assertOk();
    $heron = DB::table('sections')->where('school_year_id', $next['id'])->where('name', '3 Heron')->first();
    expect($heron->carried_from)
        ->toBe($this->section)
        ->and(DB::table('enrollments')->where('section_id', $heron->id)->orderBy('role')->pluck('role')->all())
        ->toBe(['lead', 'co_teacher', 'assistant'])
        ->and(DB::table('enrollments')->where('section_id', $heron->id)->pluck('begins_on')->unique()->all())
        ->toBe(['2027-08-23']);
    // The year turn begins from the year that was planned, and does not make its sections a second time.
    $this->getJson("/api/schools/$this->school/year-turn")->assertJson([
        'nextName' => '2027-28',
        'nextBegins' => '2027-08-23',
        'nextLast' => '2028-06-09',
    ]);
    $turn = $this->postJson("/api/schools/$this->school/year-turn/rehearse", [
        'name' => '2027-28',
        'begins' => '2027-08-23',
        'last' => '2028-06-09',
        'carry' => true,
    ]);
    expect($turn->json('blockers'))
        ->toBe([])
        ->and(collect($turn->json('tallies'))->firstWhere('key', 'carried')['count'])
        ->toBe(0);
    $this->postJson("$uri/plan", ['how' => 'list', 'kind' => 'class', 'text' => "Art\tgrade q"])
        ->assertStatus(422)
        ->assertJsonPath('errors.text.0', 'Line 1: “grade q” is not a grade. Write PK, K, or a number from 1 to 13.');
});

it('changes a section, and no name twice', function (): void {
    ($this->as)('co_teacher')
        ->postJson("/api/sections/$this->section", [
            'name' => '3 Heron East',
            'kind' => 'homeroom',
            'grade' => '3',
            'period' => '1',
            'seats' => 26,
        ])
        ->assertOk()
        ->assertJson(['name' => '3 Heron East', 'period' => '1', 'seats' => 26]);
    $this->postJson("/api/sections/$this->section", ['name' => '3 plover', 'kind' => 'homeroom'])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['name']]);
    $this->postJson("/api/sections/$this->section", ['name' => 'X', 'kind' => 'homeroom', 'seats' => 0])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['seats']]);
});

it('makes reserve accounts whose card goes on working under the owner’s name', function (): void {
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/reserves", ['count' => 2])
        ->assertOk();
    $reserves = array_values(
        array_filter(
            $this->getJson("/api/sections/$this->section")->json('roster'),
            fn(array $r): bool => $r['reserve'],
        ),
    );
    expect(array_column($reserves, 'name'))
        ->toBe(['Reserve 1', 'Reserve 2'])
        ->and($reserves[0]['userName'])
        ->toBe('reserve.3heron');
    $this->postJson("/api/sections/$this->section/cards", [
        'person_ids' => [$reserves[0]['id']],
        'layout' => 'cards-a4',
        'order' => 'reading',
    ])->assertOk();
    DB::table('badges')->update(['token_hash' => hash('sha256', 'the-card')]);
    auth()->logout();
    $this->app['auth']->forgetGuards();
    $this->get('/b/the-card')->assertRedirect('/');
    expect(auth()->id())->toBe($reserves[0]['id']);
    $this->getJson('/api/home')->assertOk()->assertJsonPath('students.0.name', 'Reserve 1');
    $this->postJson('/api/join', ['code' => $this->world->code])->assertStatus(403);
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/reserves/{$reserves[0]['id']}", [
            'given_name' => 'UMA',
            'family_name' => 'rao',
            'number' => '020900',
        ])
        ->assertOk();
    expect(($this->names)($this->section))->toContain('Uma Rao')->not->toContain('Reserve 1');
    $this->postJson("/api/sections/$this->section/reserves/{$reserves[0]['id']}", [
        'given_name' => 'A',
        'family_name' => 'B',
    ])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This is not a reserve account any more: it belongs to Uma Rao.');
    auth()->logout();
    $this->get('/b/the-card')->assertRedirect('/');
    $this->getJson('/api/home')->assertJsonPath('students.0.name', 'Uma Rao');
});
