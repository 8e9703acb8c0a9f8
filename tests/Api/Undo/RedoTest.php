<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;

// Undo out of order, undo taken back, and plans that were overtaken.

beforeEach(fn() => readyToUndo($this));

it('does again no merge whose account has been worked with since', function (): void {
    $a = $this->world->student('Noor Haddad');
    $b = $this->world->student('Noor Haddat');
    $pair = "/api/schools/{$this->world->school}/look-alikes/$a-$b";
    $merge = $this->postJson("$pair/merge", ['fingerprint' => $this->getJson($pair)->json('plan.fingerprint')])
        ->assertOk()
        ->json('id');
    $gone = (string) DB::table('people')->where('state', 'merged')->value('id');
    ($this->undo)($merge)->assertOk();
    $this->world->enroll($this->world->section, $gone, 'student');
    $now = World::checksum();
    $this->postJson("/api/ledger/$merge/redo")
        ->assertStatus(409)
        ->assertJsonPath('changed', [
            DB::table('people')->where('id', $gone)->selectRaw("CONCAT(given_name, ' ', family_name) n")->value('n') .
            ' in 3 Heron',
        ]);
    expect(World::checksum())->toBe($now);
});

it('does again what an undo took back, and says why where it cannot', function (): void {
    $begin = World::checksum();
    $entry = ($this->change)($this->world->people['student'], ['grade' => '01']);
    $done = World::checksum();
    ($this->undo)($entry->id)->assertOk();
    expect(World::checksum())->toBe($begin);
    $this->postJson("/api/ledger/$entry->id/redo")
        ->assertOk()
        ->assertJsonPath('undoneAt', null)
        ->assertJsonPath('canUndo', true);
    expect(World::checksum())
        ->toBe($done)
        ->and(DB::table('ledger_entries')->where('action', 'redo')->value('title'))
        ->toBe('Done again: By hand');
    $this->postJson("/api/ledger/$entry->id/redo")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This has not been undone.');
    ($this->undo)($entry->id)->assertOk();
    ($this->change)($this->world->people['student'], ['grade' => '02']);
    $now = World::checksum();
    $this->postJson("/api/ledger/$entry->id/redo")
        ->assertStatus(409)
        ->assertJsonPath('changed', ['Wilhelmina Seabright']);
    expect(World::checksum())->toBe($now);
});

it('does a list again, which is then applied again', function (): void {
    $entry = ($this->list)("Name,Birth date,Student number,Grade,Section\nCorin Quill,2017-03-03,040001,3,3 Heron\n");
    $done = World::checksum();
    ($this->undo)($entry)->assertOk();
    expect(DB::table('imports')->value('state'))->toBe('planned');
    $this->postJson("/api/ledger/$entry/redo")->assertOk();
    expect(World::checksum())
        ->toBe($done)
        ->and(DB::table('imports')->value('state'))
        ->toBe('applied')
        ->and(DB::table('imports')->value('entry_seq'))
        ->toBe(DB::table('ledger_entries')->where('id', $entry)->value('seq'));
});

it('does not bring cards back whose secrets are kept nowhere', function (): void {
    $this->postJson("/api/schools/{$this->world->school}/cards", [
        'section_ids' => [$this->world->section],
        'layout' => 'cards-a4',
        'order' => 'reading',
    ])->assertOk();
    $entry = DB::table('ledger_entries')->where('action', 'cards')->value('id');
    ($this->undo)($entry)->assertOk();
    $this->postJson("/api/ledger/$entry/redo")
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'Make them anew'));
});

it('says before an undo which passphrases cannot come back', function (): void {
    DB::table('sign_ins')
        ->where('person_id', $this->world->people['student'])
        ->update(['passphrase' => Illuminate\Support\Facades\Crypt::encryptString('maple otter candy')]);
    $this->postJson("/api/schools/{$this->world->school}/cards", [
        'section_ids' => [$this->world->section],
        'layout' => 'cards-a4',
        'order' => 'reading',
        'lost' => true,
    ])->assertOk();
    $look = ($this->outlook)((string) DB::table('ledger_entries')->where('action', 'cards')->value('id'));
    expect($look['lost'])->toBe([
        'wilhelmina.seabright: the passphrase from before cannot come back; print a new card or send a link',
    ]);
});

it('turns a year that has been worked in back as a whole or not at all: never two current years', function (): void {
    $base = "/api/schools/{$this->world->school}/year-turn";
    $wish = ['name' => '2027-28', 'begins' => '2027-08-23', 'last' => '2028-06-09', 'carry' => true];
    $before = World::checksum();
    $plan = $this->postJson("$base/rehearse", $wish)->json();
    $turn = $this->postJson($base, [...$wish, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']])
        ->assertOk()
        ->json('id');
    $year = DB::table('school_years')->where('name', '2027-28')->value('id');
    $section = DB::table('sections')->where('school_year_id', $year)->orderBy('name')->value('id');
    $used = new PlanBuilder();
    $used->insert(
        Entity::Enrollment,
        (string) Str::ulid(),
        [
            'section_id' => $section,
            'person_id' => $this->world->people['student'],
            'role' => 'student',
            'begins_on' => '2027-08-23',
            'ends_on' => null,
            'source' => 'hand',
            'join_code_id' => null,
            'came_at' => null,
        ],
        'by hand',
    );
    $later = $this->ledger->apply($used->build('One in', 'One comes in.'), $this->world->school, null, Action::Place);
    $look = ($this->outlook)($turn);
    expect($look['blocked'])
        ->toBeTrue()
        ->and($look['first'])
        ->toHaveCount(1)
        ->and($look['first'][0]['title'])
        ->toBe('One in');
    ($this->undo)($turn)
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'Undo first, newest first: One in'));
    expect(
        DB::table('school_years')->where('school_id', $this->world->school)->where('state', 'current')->count(),
    )->toBe(1);
    ($this->undo)($turn, [$later->id])
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
});

it('lets newcomers who wait go on waiting as they did after a turn and its undo, password and all', function (): void {
    $asking = $this->world->insert('join_requests', [
        'section_id' => $this->world->section,
        'state' => 'waiting',
        'cause' => 'newcomer',
        'given_name' => 'Tamsin',
        'family_name' => 'Rook',
        'password' => bcrypt('green boat stone'),
        'made_at' => now(),
    ]);
    $before = World::checksum();
    $base = "/api/schools/{$this->world->school}/year-turn";
    $wish = ['name' => '2027-28', 'begins' => '2027-08-23', 'last' => '2028-06-09', 'carry' => true];
    $plan = $this->postJson("$base/rehearse", $wish)->json();
    $turn = $this->postJson($base, [...$wish, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']])
        ->assertOk()
        ->json('id');
    expect(DB::table('join_requests')->where('id', $asking)->value('state'))->toBe('refused');
    $this->postJson("/api/sections/{$this->world->section}/requests/$asking/approve")->assertStatus(422);
    ($this->undo)($turn)->assertOk()->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
    $this->postJson("/api/sections/{$this->world->section}/requests/$asking/approve")->assertOk();
    auth()->logout();
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/sign-in', ['user_name' => 'tamsin.rook', 'secret' => 'green boat stone'])->assertOk();
});
