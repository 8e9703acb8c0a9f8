<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

// A secret ends when its purpose does: what somebody chose at a door opens what was made there, for the browser that
// asked, and no more.

beforeEach(function (): void {
    readyForAttacks($this);
    $this->asked = function (array $more = []) {
        $browser = ($this->browser)();
        ($this->ask)($browser, ['given_name' => 'Zebulon', 'family_name' => 'Fitch', ...$more])->assertOk();

        return $browser;
    };
    $this->signIn = fn() => DB::table('sign_ins')->where('user_name', 'zebulon.fitch');
});

it('signs the browser that asked in to nothing but what was chosen there', function (): void {
    $browser = ($this->asked)();
    ($this->approve)('lead', null);
    $person = ($this->signIn)()->value('person_id');
    ($this->as)('coordinator')
        ->postJson("/api/people/$person/credentials/end-all")
        ->assertOk();
    ($this->signIn)()->update(['password' => Illuminate\Support\Facades\Hash::make('another boat stone')]);
    $browser->post('/api/join/asked')->assertJson(['state' => 'approved', 'userName' => '', 'how' => 'card']);
    expect($browser->who())->toBeNull();
});

it('does so once, and for minutes', function (): void {
    $late = ($this->asked)();
    ($this->approve)('lead', null);
    DB::table('join_requests')->update(['answered_at' => now()->subMinutes(16)]);
    $late->post('/api/join/asked')->assertJson(['userName' => 'zebulon.fitch', 'how' => 'password']);
    expect($late->who())->toBeNull();
    $late->post('/api/join/asked')->assertJson(['state' => 'none']);
    $late->signIn('zebulon.fitch', 'green boat stone')->assertOk();
});

it('gives no account to whoever asked in its owner’s name, by a merge', function (bool $askedStays): void {
    $victim = $this->world->student('Zebulon Fitch', $this->section, [
        'birth_date' => '2018-07-07',
        'number' => '020777',
    ]);
    ($this->signIn)()->update([
        'last_signed_in_at' => $askedStays ? null : now(),
        'passphrase' => encrypt('maple otter candy'),
    ]);
    $attacker = ($this->asked)();
    ($this->approve)('lead', null);
    $attacker->post('/api/join/asked')->assertJson(['state' => 'approved']);
    $made = $attacker->who();
    $name = (string) DB::table('sign_ins')->where('person_id', $made)->value('user_name');
    // Also after the password has been changed by whoever has it.
    $attacker->post('/api/password', ['password' => 'another boat stone', 'current' => 'green boat stone'])->assertOk();
    $this->world->lookThrough();
    $uri = "/api/schools/{$this->world->school}/look-alikes";
    ($this->as)('coordinator');
    $cluster = $this->getJson($uri)->assertOk()->json('clusters.0');
    expect($cluster['clear'])->toBeFalse()->and($cluster['why'])->toContain('at the door');
    $this->postJson("$uri/many/plan", ['clusters' => [$cluster['id']]])->assertStatus(422);
    $seen = $this->getJson("$uri/{$cluster['id']}")->assertOk();
    expect(json_encode($seen->json('plan.warnings')))->toContain("The password of $name ends");
    $this->postJson("$uri/{$cluster['id']}/merge", [
        'fingerprint' => $seen->json('plan.fingerprint'),
        'picks' => [],
    ])->assertOk();
    auth()->logout();
    expect($attacker->who())->toBeNull();
    ($this->browser)()->signIn($name, 'another boat stone')->assertStatus(422);
    expect(
        DB::table('people')
            ->whereIn('id', [$victim, $made])
            ->whereNotNull('merged_into')
            ->count(),
    )->toBe(1);
})->with([true, false]);
