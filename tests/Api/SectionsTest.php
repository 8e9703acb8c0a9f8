<?php

declare(strict_types=1);

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Uid\Ulid;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->section = $this->world->section;
    $this->school = $this->world->school;
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->today = gmdate('Y-m-d');
    $this->day = fn(int $days): string => gmdate('Y-m-d', time() + 86400 * $days);
    // Looks at a plan and applies it as looked at.
    $this->apply = function (string $uri, array $body) {
        $plan = $this->postJson("$uri/plan", $body)
            ->assertOk()
            ->json();
        $this->plan = $plan;
        // Nobody reads a plan in no time.
        $this->travel(90)->seconds();

        return $this->postJson($uri, [...$body, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']]);
    };
    $this->names = fn(string $section, ?string $day = null): array => $this->getJson(
        "/api/sections/$section" . ($day === null ? '' : "?as_of=$day"),
    )->json('roster.*.name');
});

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
    $this->postJson("$uri/plan", ['how' => 'list', 'kind' => 'class', 'text' => "Art\tgrade x"])
        ->assertStatus(422)
        ->assertJsonPath('errors.text.0', 'Line 1: “grade x” is not a grade. Write PK, K, or a number from 1 to 13.');
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

it('hands the lead over, and what each may do follows at once', function (): void {
    ($this->as)('co_teacher')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertStatus(403);
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertOk()
        ->assertJsonFragment(['name' => 'Marten Vale', 'role' => 'lead'])
        ->assertJsonFragment(['name' => 'Petra Okonjo', 'role' => 'co-teacher']);
    $this->getJson("/api/sections/$this->section/archive")->assertStatus(403);
    ($this->as)('co_teacher')
        ->getJson("/api/sections/$this->section/archive")
        ->assertOk();
    $this->deleteJson("/api/sections/$this->section/staff/{$this->world->people['assistant']}")->assertOk();
    ($this->as)('assistant')
        ->getJson("/api/sections/$this->section")
        ->assertStatus(403);
    $stranger = $this->world->staff($this->world->otherSchool, 'Yuki Harada');
    ($this->as)('co_teacher')
        ->postJson("/api/sections/$this->section/lead", ['person' => $stranger])
        ->assertStatus(422);
});

it('invites many, a substitute with dates, and takes the answer at sign-in', function (): void {
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/invitations", [
            'email' => 'ruben.aske@lanternfield.example; new.one@lanternfield.example',
            'role' => 'substitute',
            'begins_on' => ($this->day)(1),
            'ends_on' => ($this->day)(2),
        ])
        ->assertOk()
        ->assertJsonCount(2, 'invitations');
    expect(DB::table('outgoing_messages')->count())
        ->toBe(2)
        ->and(DB::table('ledger_entries')->count())
        ->toBe(1);
    $mine = ($this->as)('other teacher')->getJson('/api/invitations')->assertOk()->json('invitations');
    expect($mine)
        ->toHaveCount(1)
        ->and($mine[0])
        ->toMatchArray(['section' => '3 Heron', 'role' => 'substitute', 'endsOn' => ($this->day)(3)]);
    $this->postJson("/api/invitations/{$mine[0]['id']}/answer", ['answer' => 'accept'])
        ->assertOk()
        ->assertJsonPath('invitations', []);
    $this->getJson("/api/sections/$this->section")->assertStatus(403);
    $staff = ($this->as)('lead')
        ->getJson("/api/sections/$this->section")
        ->json('staff');
    expect(collect($staff)->firstWhere('name', 'Ruben Aske'))->toMatchArray([
        'begins' => ($this->day)(1),
        'ends' => ($this->day)(3),
    ]);
    $this->travel(1)->days();
    $this->flushSession();
    ($this->as)('other teacher')
        ->getJson("/api/sections/$this->section")
        ->assertOk();
    $this->travel(2)->days();
    $this->flushSession();
    ($this->as)('other teacher')
        ->getJson("/api/sections/$this->section")
        ->assertStatus(403);
});

it('lets staff from outside in where the school says so, and they see their section only', function (): void {
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/invitations", [
            'email' => 'guest@elsewhere.example',
            'role' => 'co_teacher',
        ])
        ->assertStatus(422);
    ($this->as)('coordinator')
        ->postJson("/api/schools/$this->school/settings", ['outside_staff' => true])
        ->assertOk()
        ->assertJsonPath('outsideStaff', true);
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/invitations", [
            'email' => 'saskia.thorne@lanternfield.example',
            'role' => 'co_teacher',
        ])
        ->assertOk();
    $id = DB::table('invitations')->value('id');
    ($this->as)('other coordinator')
        ->postJson("/api/invitations/$id/answer", ['answer' => 'accept'])
        ->assertOk();
    $this->getJson('/api/me')->assertJsonCount(2, 'schools')->assertJsonPath('schools.0.coordinates', false);
    $this->getJson("/api/schools/$this->school/sections")
        ->assertOk()
        ->assertJsonCount(1, 'sections');
    $this->getJson("/api/schools/$this->school/desk")->assertStatus(403);
});

it('shows the section as a student sees it, no more than the reader may see, and records it', function (): void {
    $this->world->enroll($this->world->otherSection, $this->world->people['student'], 'student');
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/as-student")
        ->assertOk()
        ->assertJson([
            'givenName' => 'Wilhelmina',
            'sections' => [['name' => '3 Heron', 'teachers' => ['Petra Okonjo', 'Marten Vale', 'Jorun Falk']]],
        ])
        ->assertJsonCount(1, 'sections');
    ($this->as)('coordinator')
        ->postJson("/api/sections/$this->section/as-student", ['person' => $this->world->people['student']])
        ->assertJsonCount(2, 'sections');
    $looks = fn(): int => DB::table('ledger_entries')->where('action', 'seen')->count();
    expect($looks())->toBe(2);
    // A page loaded again is the same look; an hour later it is another.
    $this->postJson("/api/sections/$this->section/as-student", [
        'person' => $this->world->people['student'],
    ])->assertOk();
    expect($looks())->toBe(2);
    $this->travel(1)->hours();
    $this->postJson("/api/sections/$this->section/as-student", [
        'person' => $this->world->people['student'],
    ])->assertOk();
    expect($looks())->toBe(3);
    $entry = DB::table('ledger_entries')->where('action', 'seen')->orderBy('seq')->first();
    expect($entry->actor_id)->toBe($this->world->people['lead'])->and($entry->changes_count)->toBe(0);
    $this->getJson("/api/schools/$this->school/ledger")->assertJsonPath('entries.0.canUndo', false);
});

it('keeps settings through the ledger: seen, recorded, undone', function (): void {
    $before = World::checksum();
    $settings = ($this->as)('coordinator')
        ->getJson("/api/schools/$this->school/settings")
        ->assertOk();
    expect($settings->json('ways.*.way'))
        ->toBe(array_fill(0, 6, 'passphrase'))
        ->and($settings->json('guessPerDay'))
        ->toBeLessThan(0.0001)
        ->and($settings->json('years.0.sections'))
        ->toBe(2);
    $this->postJson("/api/schools/$this->school/settings", [
        'ways' => ['KG' => 'card', '01' => 'card', '05' => 'own'],
        'mail_domains' => [' @Lanternfield.Example', 'second.example'],
        'time_zone' => 'America/New_York',
        'stay_days_own' => 30,
    ])
        ->assertOk()
        ->assertJsonPath('ways.0.way', 'card')
        ->assertJsonPath('ways.2.way', 'passphrase')
        ->assertJsonPath('ways.5.way', 'own')
        ->assertJsonPath('mailDomains', ['lanternfield.example', 'second.example']);
    $this->postJson("/api/schools/$this->school/settings", ['time_zone' => 'Lanternfield'])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['time_zone']]);
    $this->postJson("/api/schools/$this->school/settings", ['highest_grade' => '02'])
        ->assertStatus(422)
        ->assertJsonPath(
            'errors.highest_grade.0',
            '1 students are in grades outside these. Move them first, or keep their grades.',
        );
    $this->getJson(
        "/api/schools/$this->school/settings/names?pattern=" . urlencode('{subject} {grade}{group}'),
    )->assertJsonPath('names', ['Marine science 2A', 'Marine science 2B']);
    $this->getJson("/api/schools/$this->school/settings/names?pattern=none")->assertStatus(422);
    $entry = DB::table('ledger_entries')->value('id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(World::checksum())->toBe($before);
});

it('gives the table of what each role may do', function (): void {
    $table = ($this->as)('assistant')->getJson('/api/roles')->assertOk()->json();
    expect($table['roles'])
        ->toBe(['lead', 'co-teacher', 'assistant', 'substitute'])
        ->and($table['powers'][0])
        ->toMatchArray(['may' => [true, true, true, true]])
        ->and(end($table['powers']))
        ->toMatchArray(['power' => 'archive the section', 'may' => [true, false, false, false]]);
});
