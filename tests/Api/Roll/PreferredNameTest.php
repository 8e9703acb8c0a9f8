<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

// The name somebody goes by stands where people call each other, and nowhere else.

beforeEach(function (): void {
    readyToUndo($this);
    $this->mina = $this->world->student('Wilhelmina Castell', $this->world->section, passphrase: 'maple otter candy');
    $this->world->lookThrough();
    $this->postJson("/api/people/$this->mina", ['version' => 0, 'preferred' => 'Mina'])->assertOk();
});

it('stands on rosters, on the wall and in the room, and on the student’s own page', function (): void {
    $section = $this->getJson("/api/sections/{$this->world->section}")
        ->assertOk()
        ->json('roster');
    expect(array_column($section, 'name'))->toContain('Mina Castell')->not->toContain('Wilhelmina Castell');
    DB::table('enrollments')
        ->where('person_id', $this->mina)
        ->update([
            'join_code_id' => DB::table('join_codes')
                ->where('section_id', $this->world->section)
                ->where('state', 'open')
                ->value('id'),
            'came_at' => '2026-11-26 08:00:00',
        ]);
    $wall = $this->getJson("/api/sections/{$this->world->section}/code")
        ->assertOk()
        ->json();
    expect(json_encode($wall))->toContain('Mina C.')->not->toContain('Wilhelmina');
    $name = DB::table('sign_ins')->where('person_id', $this->mina)->value('user_name');
    auth()->logout();
    $this->postJson('/api/sign-in', ['user_name' => $name, 'secret' => 'maple otter candy'])->assertOk();
    $home = $this->getJson('/api/home')->assertOk()->json('students.0');
    expect($home['name'])
        ->toBe('Mina Castell')
        ->and($home['givenName'] ?? ($home['given'] ?? ''))
        ->toBe('Mina');
});

it('stands beside the name on record on the Roll, finds them, and is in no list that goes out', function (): void {
    $line = $this->getJson("/api/schools/{$this->world->school}/people?kind=student&q=mina+castell")->json('people.0');
    expect([$line['name'], $line['goesBy']])
        ->toBe(['Wilhelmina Castell', 'Mina'])
        ->and($this->getJson("/api/people/$this->mina")->json('preferred'))
        ->toBe('Mina');
    $sheet = $this->get("/api/schools/{$this->world->school}/roster?format=csv")
        ->assertOk()
        ->streamedContent();
    expect($sheet)->toContain('Wilhelmina')->not->toContain('Mina,');
});

it('is kept by a merge, whoever of the two had it', function (): void {
    $twin = $this->world->student('Wilhelmina Castell', $this->world->section);
    $pair = "/api/schools/{$this->world->school}/look-alikes/$this->mina-$twin";
    $plan = $this->getJson($pair)->assertOk()->json();
    expect(collect($plan['fields'])->firstWhere('column', 'preferred_name')['stays'])->toBe('Mina');
    $this->postJson("$pair/merge", ['fingerprint' => $plan['plan']['fingerprint']])->assertOk();
    expect(
        DB::table('people')->where('state', 'active')->where('family_name', 'Castell')->value('preferred_name'),
    )->toBe('Mina');
});
