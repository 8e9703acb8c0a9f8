<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->actingAs($this->world->as('coordinator'));
    $this->uri = "/api/schools/{$this->world->school}/rename-sections";
    $this->was = (string) DB::table('sections')->where('id', $this->world->section)->value('name');
});

it('renames through the year as looked at, keeps codes and rosters, and undoes it', function (): void {
    $before = World::checksum();
    $body = ['words' => $this->was, 'instead' => '9 Gannet'];
    $plan = $this->postJson("$this->uri/plan", $body)
        ->assertOk()
        ->json();
    expect($plan['rows'][0]['cells']['Section'])->toBe(['before' => $this->was, 'after' => '9 Gannet']);
    expect(World::checksum())->toBe($before);
    $seen = ['seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']];
    // A plan looked at days ago is refused before anything is written, not after.
    $old = [...$seen, 'seed' => '01K3CNQ0000000000000000000'];
    $this->postJson($this->uri, [...$body, ...$old])->assertStatus(409);
    expect(World::checksum())->toBe($before);
    $this->postJson($this->uri, [...$body, ...$seen])->assertOk();
    expect(DB::table('sections')->where('id', $this->world->section)->value('name'))
        ->toBe('9 Gannet')
        ->and(DB::table('join_codes')->where('section_id', $this->world->section)->where('state', 'open')->count())
        ->toBe(1);
    // What was looked at is not what there is any more.
    $this->postJson($this->uri, [...$body, ...$seen])->assertStatus(409);
    $entry = $this->getJson("/api/schools/{$this->world->school}/ledger")->json('entries.0.id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(DB::table('sections')->where('id', $this->world->section)->value('name'))->toBe($this->was);
});

it('says what is missing, and reaches no other school’s year', function (): void {
    $this->postJson("$this->uri/plan", ['words' => '', 'instead' => 'x'])->assertJsonValidationErrors(['words']);
    $this->postJson("$this->uri/plan", ['words' => str_repeat('x', 81)])->assertJsonValidationErrors(['words']);
    $other = DB::table('school_years')->where('school_id', '!=', $this->world->school)->value('id');
    $this->postJson("$this->uri/plan", ['words' => 'x', 'instead' => 'y', 'year' => $other])->assertNotFound();
    $none = $this->postJson("$this->uri/plan", ['words' => 'Nowhere', 'instead' => 'y'])
        ->assertOk()
        ->json();
    expect($none['rows'])->toBe([])->and($none['sentence'])->toContain('“Nowhere”');
});
