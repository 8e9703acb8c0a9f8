<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Tests\Support\RealServer;
use Tests\Support\ServerTestCase;
use Tests\Support\World;
use Vantrel\Core\Codes\Token;

/**
 * Over a real server with sessions in the database: each way of signing in is ended in each way there is, and the very
 * next request of the session is refused, while a session that was opened otherwise goes on.
 */
it('refuses the next request of every session whose credential has ended', function (): void {
    $own = (string) config('database.connections.mariadb.database');
    $database = $own . '_ending';
    ServerTestCase::useDatabase($database);
    $world = World::make();
    $server = RealServer::start($database);
    try {
        $coordinator = $server->client();
        $server->send($coordinator);
        expect(
            $server->send(
                $server->next($coordinator, '/api/sign-in', [
                    'user_name' => 'ines.halloran@lanternfield.example',
                    'secret' => 'lantern harbor morning',
                ]),
            ),
        )->toBe(200);
        $do = function (string $uri, array $body, string $method = 'POST') use ($server, $coordinator): int {
            return $server->send($server->next($coordinator, $uri, $body, $method));
        };
        $student = $world->student('Noor Haddad', $world->section, ['birth_date' => '2014-01-01'], 'maple otter candy');
        $signIn = DB::table('sign_ins')->where('person_id', $student)->value('id');
        $world->badge($student, 'noors-card');
        $badge = DB::table('badges')->value('id');
        $pass = $world->insert('room_passes', [
            'section_id' => $world->section,
            'token_hash' => Token::hashOf('the-pass'),
            'state' => 'live',
            'hours' => 'any',
            'made_at' => now(),
        ]);
        $identity = $world->insert('identities', [
            'person_id' => $world->people['lead'],
            'issuer' => 'https://id.example',
            'subject' => 's',
            'made_at' => now(),
        ]);
        $open = function (string $uri, array $body) use ($server): CurlHandle {
            $client = $server->client();
            $server->send($client);
            if ($uri === '/api/room/enter') {
                $server->send($server->next($client, '/api/room', ['token' => $body['token']]));
                $body['key'] = collect(
                    json_decode((string) curl_multi_getcontent($client), true)['names'] ??
                        json_decode((string) curl_exec($client), true)['names'],
                )->firstWhere('name', 'Noor H.')['key'];
            }
            expect($server->send($server->next($client, $uri, $body)))->toBe(200);

            return $client;
        };
        $stands = fn(CurlHandle $c): bool => $server->send($server->next($c, '/api/me')) === 200;
        $byPhrase = fn(): CurlHandle => $open('/api/sign-in', [
            'user_name' => 'noor.haddad',
            'secret' => 'maple otter candy',
        ]);
        $byCard = fn(): CurlHandle => $open('/api/sign-in/card', ['token' => 'noors-card']);
        $byPassword = fn(): CurlHandle => $open('/api/sign-in', [
            'user_name' => 'petra.okonjo@lanternfield.example',
            'secret' => 'lantern harbor morning',
        ]);
        $byRoom = fn(): CurlHandle => $open('/api/room/enter', ['token' => 'the-pass']);
        $lead = $world->people['lead'];
        $leadSignIn = DB::table('sign_ins')->where('person_id', $lead)->value('id');
        $sessionKey = function (string $person) use ($server, $coordinator): string {
            $server->send($server->next($coordinator, "/api/people/$person/credentials"));

            return collect(json_decode((string) curl_exec($coordinator), true)['credentials'])->firstWhere(
                'kind',
                'session',
            )['id'];
        };
        $asks = [
            'a card, ended by hand' => [
                $byCard,
                fn() => $do("/api/people/$student/credentials/end", ['kind' => 'card', 'id' => $badge]),
                fn() => DB::table('badges')->update(['state' => 'live']),
            ],
            'a card, lost and printed again' => [
                $byCard,
                fn() => $do("/api/sections/{$world->section}/cards", [
                    'person_ids' => [$student],
                    'layout' => 'cards-a4',
                    'order' => 'reading',
                    'lost' => true,
                ]),
                function () use ($badge, $signIn): void {
                    DB::table('badges')
                        ->where('id', $badge)
                        ->update(['state' => 'live']);
                    DB::table('sign_ins')
                        ->where('id', $signIn)
                        ->update(['passphrase' => Crypt::encryptString('maple otter candy')]);
                },
            ],
            'a passphrase, ended by hand' => [
                $byPhrase,
                fn() => $do("/api/people/$student/credentials/end", ['kind' => 'passphrase', 'id' => $signIn]),
                fn() => DB::table('sign_ins')
                    ->where('id', $signIn)
                    ->update(['passphrase' => Crypt::encryptString('maple otter candy')]),
            ],
            'a password, ended by hand' => [
                $byPassword,
                fn() => $do("/api/people/$lead/credentials/end", ['kind' => 'password', 'id' => $leadSignIn]),
                fn() => DB::table('sign_ins')
                    ->where('id', $leadSignIn)
                    ->update(['password' => Hash::make('lantern harbor morning')]),
            ],
            'a password, all ended at once' => [
                $byPassword,
                fn() => $do("/api/people/$lead/credentials/end-all", []),
                fn() => DB::table('sign_ins')
                    ->where('id', $leadSignIn)
                    ->update(['password' => Hash::make('lantern harbor morning')]),
            ],
            'one session, ended by hand' => [
                $byPassword,
                fn() => $do("/api/people/$lead/credentials/end", ['kind' => 'session', 'id' => $sessionKey($lead)]),
                fn() => null,
            ],
            'a room pass, ended' => [
                $byRoom,
                fn() => $do("/api/sections/{$world->section}/room-pass", [], 'DELETE'),
                fn() => DB::table('room_passes')
                    ->where('id', $pass)
                    ->update(['state' => 'live', 'ended_at' => null]),
            ],
            'an account that leaves' => [
                $byPassword,
                function () use ($coordinator, $do, $lead): int {
                    $do("/api/people/$lead/off-board/plan", []);
                    $plan = json_decode((string) curl_exec($coordinator), true);

                    return $do("/api/people/$lead/off-board", [
                        'seed' => $plan['seed'],
                        'fingerprint' => $plan['fingerprint'],
                        'password' => 'lantern harbor morning',
                    ]);
                },
                fn() => null,
            ],
        ];
        foreach ($asks as $what => [$signsIn, $ends, $again]) {
            $session = $signsIn();
            expect($stands($session))->toBeTrue($what);
            expect($ends())->toBeIn([200, 204], $what);
            expect($stands($session))->toBeFalse($what);
            $again();
            // What is dead stays dead, also when the credential works again: the row is gone.
            expect($stands($session))->toBeFalse($what);
        }
        expect($stands($coordinator))->toBeTrue();
        // A sign-on that has ended: the session as the desk opens it.
        DB::table('people')
            ->where('id', $lead)
            ->update(['state' => 'active']);
        expect(DB::table('identities')->where('id', $identity)->value('state'))->toBe('ended');
    } finally {
        $server->stop();
        DB::statement("DROP DATABASE `$database`");
        ServerTestCase::useDatabase($own);
    }
});
