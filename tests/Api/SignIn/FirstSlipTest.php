<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->tamsin = $this->world->people['past substitute'];
    DB::table('sign_ins')
        ->where('person_id', $this->tamsin)
        ->update(['password' => null, 'passphrase' => null, 'last_signed_in_at' => null]);
    $this->slip = fn(string $person) => $this->actingAs($this->world->as('coordinator'))->postJson(
        "/api/people/$person/sign-in-slip",
    );
});

it('prints words that open an account once, and must be changed', function (): void {
    $pdf = (string) ($this->slip)($this->tamsin)->assertOk()->getContent();
    $file = scratch() . '/slip.pdf';
    file_put_contents($file, $pdf);
    $text = outside(['pdftotext', '-raw', $file, '-']);
    preg_match('/Words ([a-z]+ [a-z]+ [a-z]+)/', (string) preg_replace('/\s+/', ' ', $text), $words);
    $name = (string) DB::table('sign_ins')->where('person_id', $this->tamsin)->value('user_name');
    expect($text)->toContain($name)->and($words)->toHaveCount(2);
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/sign-in', ['user_name' => $name, 'secret' => $words[1]])
        ->assertOk()
        ->assertJsonPath('me.must', 'password');
    $this->getJson('/api/invitations')->assertForbidden();
    $this->postJson('/api/password', [
        'now' => $words[1],
        'password' => 'seven brown kettles ringing',
    ])->assertSuccessful();
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/sign-in', ['user_name' => $name, 'secret' => $words[1]])->assertStatus(422);
});

it('is not for accounts that somebody has opened, of students, or of who coordinates', function (): void {
    ($this->slip)($this->world->people['student'])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, 'Print a card'));
    DB::table('sign_ins')
        ->where('person_id', $this->tamsin)
        ->update(['last_signed_in_at' => now()]);
    ($this->slip)($this->tamsin)
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, 'opened before'));
    DB::table('sign_ins')->update(['last_signed_in_at' => null, 'password' => null]);
    ($this->slip)($this->world->people['coordinator'])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, 'link to their own mail'));
});

it('prints another one while the first is unused, and the first opens nothing then', function (): void {
    ($this->slip)($this->tamsin)->assertOk();
    $first = DB::table('sign_ins')->where('person_id', $this->tamsin)->value('password');
    ($this->slip)($this->tamsin)->assertOk();
    expect(DB::table('sign_ins')->where('person_id', $this->tamsin)->value('password'))->not->toBe($first);
});
