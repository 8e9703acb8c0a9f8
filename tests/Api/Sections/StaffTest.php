<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(fn() => readyInSections($this));

it('hands the lead over, and what each may do follows at once', function (): void {
    ($this->as)('co_teacher')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertStatus(403);
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertOk()
        ->assertJsonFragment(['name' => 'Marten Vale', 'role' => 'lead'])
        ->assertJsonFragment(['name' => 'Petra Okonjo', 'role' => 'co_teacher']);
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
    // An address that another school vouches for waits for a link that is followed.
    ($this->as)('other coordinator')
        ->postJson("/api/invitations/$id/answer", ['answer' => 'accept'])
        ->assertForbidden();
    DB::table('people')
        ->where('id', $this->world->people['other coordinator'])
        ->update(['email_by' => 'mail']);
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
    // Who adds a mail domain answers for every school.
    $this->world->coordinates($this->world->people['coordinator'], $this->world->otherSchool);
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
            '1 student is in a grade outside this range. Move the student first, or keep the grade.',
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
