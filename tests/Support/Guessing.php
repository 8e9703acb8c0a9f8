<?php

declare(strict_types=1);

namespace Tests\Support;

use CurlHandle;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;

/**
 * Somebody guesses on every public route, while people behind the same address come in by what they have.
 *
 * @phpstan-type Guessed array{
 *     in: array<string, int>, wrongIn: int, failed: int, statuses: array<string, array<int, int>>, seconds: float,
 * }
 */
final class Guessing
{
    /**
     * @param  int  $wrong tries on each public route
     * @param  int  $people who come in, a quarter each by card, password, room pass and code
     * @return Guessed
     *     how many came in by what; how many wrong tries were let in, or were answered with 5xx
     */
    public static function run(string $database, int $wrong, int $people): array
    {
        $world = World::make();
        $world->insert('room_passes', [
            'section_id' => $world->section,
            'token_hash' => Token::hashOf('the-pass'),
            'state' => 'live',
            'hours' => 'any',
            'made_at' => now(),
        ]);
        $each = intdiv($people, 4);
        $hash = Hash::make('green boat stone');
        for ($i = 0; $i < $each; $i++) {
            $world->badge($world->student("Carda Number$i"), "card-$i");
            DB::table('sign_ins')
                ->where('person_id', $world->student("Worda Number$i"))
                ->update(['password' => $hash]);
            $world->student("Rooma Number$i", $world->section);
            DB::table('sign_ins')
                ->where('person_id', $world->student("Coda Number$i"))
                ->update(['password' => $hash]);
        }
        $server = RealServer::start($database);
        try {
            $routes = self::wrong($world);
            $handles = $kinds = [];
            foreach ($routes as $route => $body) {
                for ($i = 0; $i < $wrong; $i++) {
                    $handles[] = $server->client();
                    $kinds[] = ['wrong', $route, $body($i)];
                }
            }
            for ($i = 0; $i < $each; $i++) {
                array_push(
                    $kinds,
                    ['card', '/api/sign-in/card', ['token' => "card-$i"]],
                    ['password', '/api/sign-in', ['user_name' => "worda.number$i", 'secret' => 'green boat stone']],
                    ['room', '/api/room', ['token' => 'the-pass']],
                    ['code', '/api/join/door', ['code' => $world->code]],
                );
                array_push($handles, $server->client(), $server->client(), $server->client(), $server->client());
            }
            // A browser reads a page first and has its token from there: one for all who guess, one each for the
            // others.
            $first = $server->client();
            $server->send($first);
            $cookies = self::cookies($first);
            $order = range(0, count($handles) - 1);
            mt_srand(20261126);
            shuffle($order);
            foreach ($order as $n) {
                if ($kinds[$n][0] !== 'wrong') {
                    $server->send($handles[$n]);
                }
            }
            $begin = microtime(true);
            foreach ($order as $n) {
                if ($kinds[$n][0] === 'wrong') {
                    curl_setopt($handles[$n], CURLOPT_COOKIELIST, 'ALL');
                    foreach ($cookies as $cookie) {
                        curl_setopt($handles[$n], CURLOPT_COOKIELIST, $cookie);
                    }
                }
                $server->next($handles[$n], $kinds[$n][1], $kinds[$n][2]);
            }
            RealServer::allAtOnce(array_map(fn(int $n): CurlHandle => $handles[$n], $order), 32);
            $seconds = microtime(true) - $begin;

            return self::count($server, $handles, $kinds, $seconds);
        } finally {
            $server->stop();
        }
    }

    /**
     * @return array<string, callable(int): array<string, mixed>> every public route that takes something secret, to a
     *     wrong one
     */
    private static function wrong(World $world): array
    {
        $random = new KeyedStream(str_repeat('g', 32), 'guesses');
        $code = fn(): string => CodeSymbols::draw($random, 6)->symbols;
        $token = fn(): string => Token::draw($random)->plain;

        return [
            '/api/sign-in' => fn(int $i): array => ['user_name' => 'guess' . $i % 97, 'secret' => "guess $i"],
            '/api/sign-in/card' => fn(): array => ['token' => $token()],
            '/api/sign-in/code' => fn(int $i): array => ['code' => sprintf('%06d', $i)],
            '/api/forgotten' => fn(int $i): array => ['user_name' => "guess$i"],
            '/api/new-password/check' => fn(): array => ['token' => $token()],
            '/api/new-password' => fn(): array => ['token' => $token(), 'password' => 'four green boats at sea'],
            '/api/join/door' => fn(): array => ['code' => $code()],
            '/api/join/names' => fn(): array => ['code' => $code(), 'given_name' => 'A', 'family_name' => 'B'],
            '/api/join/claim' => fn(): array => [
                'code' => $code(),
                'given_name' => 'A',
                'family_name' => 'B',
                'key' => 'x',
                'proof' => '2018-01-01',
                'password' => 'green boat stone',
            ],
            '/api/join/ask' => fn(): array => [
                'code' => $code(),
                'given_name' => 'A',
                'family_name' => 'B',
                'birth_date' => '2018-01-01',
                'password' => 'green boat stone',
            ],
            '/api/join/confirm' => fn(): array => ['token' => $token(), 'password' => 'green boat stone'],
            '/api/room' => fn(): array => ['token' => $token()],
            '/api/room/enter' => fn(): array => ['token' => $token(), 'key' => 'x'],
            '/api/invited' => fn(): array => ['token' => $token()],
            '/api/invited/accept' => fn(): array => ['token' => $token()],
            '/api/invited/decline' => fn(): array => ['token' => $token()],
        ];
    }

    /**
     * @param  list<CurlHandle>  $handles
     * @param  list<array{string, string, array<string, mixed>}>  $kinds
     * @return Guessed
     */
    private static function count(RealServer $server, array $handles, array $kinds, float $seconds): array
    {
        $in = ['card' => 0, 'password' => 0, 'room' => 0, 'code' => 0];
        $wrongIn = $failed = 0;
        $statuses = [];
        foreach ($kinds as $n => [$kind, $route]) {
            $status = (int) curl_getinfo($handles[$n], CURLINFO_RESPONSE_CODE);
            $failed += $status >= 500 || $status === 0 ? 1 : 0;
            if ($kind === 'wrong') {
                $statuses[$route][$status] = ($statuses[$route][$status] ?? 0) + 1;
                $wrongIn += $status === 200 && !self::saysNothing($handles[$n]) ? 1 : 0;
            } elseif ($status === 200) {
                $in[$kind] += self::isIn($server, $handles[$n], $kind) ? 1 : 0;
            }
        }

        return [
            'in' => $in,
            'wrongIn' => $wrongIn,
            'failed' => $failed,
            'statuses' => $statuses,
            'seconds' => $seconds,
        ];
    }

    /** Whether an answer is the one that every code gets once many wrong ones came: no section, no names. */
    private static function saysNothing(CurlHandle $handle): bool
    {
        $said = (array) json_decode((string) curl_multi_getcontent($handle), true);

        return ($said['section'] ?? null) === '' || ($said['names'] ?? null) === [];
    }

    /** The second step, where there is one: a name of the room's list, the code with the account. */
    private static function isIn(RealServer $server, CurlHandle $handle, string $kind): bool
    {
        if ($kind === 'room') {
            $key = json_decode((string) curl_multi_getcontent($handle), true)['names'][0]['key'] ?? '';

            return $server->send($server->next($handle, '/api/room/enter', ['token' => 'the-pass', 'key' => $key])) ===
                200;
        }

        return $kind === 'code' || $server->send($server->next($handle, '/api/me')) === 200;
    }

    /** @return list<string> */
    private static function cookies(CurlHandle $handle): array
    {
        return array_values(curl_getinfo($handle, CURLINFO_COOKIELIST));
    }
}
