<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\Guessing;
use Tests\Support\RealServer;
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

it('looks at no more tries than it bears, however many come at once', function (): void {
    $own = (string) config('database.connections.mariadb.database');
    $database = $own . '_at_once';
    ServerTestCase::useDatabase($database);
    try {
        Tests\Support\World::make();
        $server = RealServer::start($database);
        $handles = array_map(fn(int $i): CurlHandle => $server->client(), range(1, 24));
        array_walk($handles, fn(CurlHandle $h) => $server->send($h));
        foreach ($handles as $i => $handle) {
            $server->next($handle, '/api/sign-in', ['user_name' => 'wilhelmina.seabright', 'secret' => "wrong $i"]);
        }
        expect(array_count_values(RealServer::allAtOnce($handles, 24)))->toEqualCanonicalizing([422 => 10, 429 => 14]);
    } finally {
        isset($server) && $server->stop();
        DB::statement("DROP DATABASE `$database`");
        ServerTestCase::useDatabase($own);
    }
});

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
    // Every count of this address is full but the one for codes, which bears 20 a day.
    foreach (Vantrel\Core\Accounts\Limit::cases() as $limit) {
        if (str_ends_with($limit->value, '-from')) {
            Tests\Support\Tries::have($limit, '127.0.0.1', $limit->most());
        }
    }
    Tests\Support\Tries::have(Vantrel\Core\Accounts\Limit::CodeAddress, '127.0.0.1', 19);
    $this->postJson('/api/sign-in/card', ['token' => 'none'])->assertStatus(429);
    $this->postJson('/api/sign-in/card', ['token' => 'a-card'])->assertOk();
    auth()->logout();
    $this->postJson('/api/room', ['token' => 'none'])->assertStatus(429);
    $this->postJson('/api/room', ['token' => 'the-pass'])->assertOk();
    $this->postJson('/api/join/door', ['code' => $world->code])
        ->assertOk()
        ->assertJsonPath('looked', false);
    $wrong = Vantrel\Core\Codes\CodeSymbols::fromPayload('TTRWXK')->symbols;
    $this->postJson('/api/join/door', ['code' => $wrong])->assertStatus(422);
    // Beyond that nobody is turned away, and nobody learns anything.
    foreach ([$wrong, $world->code] as $code) {
        $this->postJson('/api/join/door', ['code' => $code])
            ->assertOk()
            ->assertJsonPath('section', '');
    }
    // Whoever is signed in is not held up by what others at the address have tried.
    $this->actingAs($world->as('student'))
        ->postJson('/api/join', ['code' => $world->code])
        ->assertOk();
});
