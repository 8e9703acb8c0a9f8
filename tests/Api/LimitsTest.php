<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\Guessing;
use Tests\Support\ServerTestCase;

/**
 * Limits slow guessing down and shut nobody out: wrong tries from one address on every public route, at once with
 * people of the same address who sign in by card, password, room pass and code. Here 25 wrong ones a route;
 * `bin/campaign guessing` plays 1,000.
 */
it(
    'lets everybody in who has what it takes, while somebody at the same address guesses on every public route',
    function (): void {
        $own = (string) config('database.connections.mariadb.database');
        $database = $own . '_guessing';
        ServerTestCase::useDatabase($database);
        try {
            $result = Guessing::run($database, 25, 20);
            expect($result['in'])
                ->toBe(['card' => 5, 'password' => 5, 'room' => 5, 'code' => 5])
                ->and($result['wrongIn'])
                ->toBe(0)
                ->and($result['failed'])
                ->toBe(0);
        } finally {
            DB::statement("DROP DATABASE `$database`");
            ServerTestCase::useDatabase($own);
        }
    },
);

it('bears as many as it says, of each kind by itself', function (): void {
    $world = Tests\Support\World::make();
    $world->badge($world->people['student'], 'a-card');
    $world->insert('room_passes', [
        'section_id' => $world->section,
        'token_hash' => Vantrel\Core\Codes\Token::hashOf('the-pass'),
        'state' => 'live',
        'hours' => 'any',
        'made_at' => now(),
    ]);
    // Every count of this address is full but the one for codes, which bears 5,000 a day.
    foreach (Vantrel\Core\Accounts\Limit::cases() as $limit) {
        if (str_ends_with($limit->value, '-from')) {
            Illuminate\Support\Facades\RateLimiter::increment(
                "$limit->value|127.0.0.1",
                $limit->seconds(),
                $limit->most(),
            );
        }
    }
    Illuminate\Support\Facades\RateLimiter::increment('join|127.0.0.1', 86400, 4999);
    $this->postJson('/api/sign-in/card', ['token' => 'none'])->assertStatus(429);
    $this->postJson('/api/sign-in/card', ['token' => 'a-card'])->assertOk();
    auth()->logout();
    $this->postJson('/api/room', ['token' => 'none'])->assertStatus(429);
    $this->postJson('/api/room', ['token' => 'the-pass'])->assertOk();
    $this->postJson('/api/join/door', ['code' => $world->code])->assertOk();
    $wrong = Vantrel\Core\Codes\CodeSymbols::fromPayload('TTRWXK')->symbols;
    $this->postJson('/api/join/door', ['code' => $wrong])->assertStatus(422);
    $this->postJson('/api/join/door', ['code' => $world->code])->assertStatus(429);
    // Whoever is signed in is not held up by what others at the address have tried.
    $this->actingAs($world->as('student'))
        ->postJson('/api/join', ['code' => $world->code])
        ->assertOk();
});
