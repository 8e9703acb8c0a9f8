<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\RealServer;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

it(
    'lets merges, archives and lists that meet wait for each other or say what changed, and ties nothing to ' .
        'what is gone',
    function (): void {
        $own = (string) config('database.connections.mariadb.database');
        $database = $own . '_meet';
        ServerTestCase::useDatabase($database);
        $world = World::make();
        $server = RealServer::start($database);
        try {
            $client = function () use ($server): CurlHandle {
                $client = $server->client();
                $server->send($client);
                expect(
                    $server->send(
                        $server->next($client, '/api/sign-in', [
                            'user_name' => 'ines.halloran@lanternfield.example',
                            'secret' => 'lantern harbor morning',
                        ]),
                    ),
                )->toBe(200);

                return $client;
            };
            $get = function (CurlHandle $client, string $uri, ?array $body = null) use ($server): array {
                expect($server->send($server->next($client, $uri, $body)))->toBe(200);

                return json_decode((string) curl_exec($client), true);
            };
            $read = $client();
            $handles = [];
            // A into B and B into C, each looked at by somebody of their own, clicked at the same moment.
            for ($i = 0; $i < 8; $i++) {
                [$a, $b, $c] = array_map(fn(string $n): string => $world->student("Child$i $n"), [
                    'Alder',
                    'Aldre',
                    'Alderr',
                ]);
                DB::table('sign_ins')
                    ->where('person_id', $b)
                    ->update(['last_signed_in_at' => '2026-09-01 08:00:00']);
                DB::table('sign_ins')
                    ->where('person_id', $c)
                    ->update(['last_signed_in_at' => '2026-09-02 08:00:00']);
                foreach ([[$a, $b], [$b, $c]] as [$from, $into]) {
                    $pair = "/api/schools/$world->school/look-alikes/$from-$into";
                    $handles[] = $server->next($client(), "$pair/merge", [
                        'fingerprint' => $get($read, $pair)['plan']['fingerprint'],
                    ]);
                }
            }
            // Both went through one after the other, or one was told that the other has just been, or is at it still:
            // where the machine is slow, the database gives up waiting, and nothing was changed (OvertakenTest).
            $answers = RealServer::allAtOnce($handles);
            expect(array_diff($answers, [200, 409, 422, 503]))->toBe([])->and($answers)->toContain(200);
            expect(
                DB::table('people as l')
                    ->join('people as s', 's.id', '=', 'l.merged_into')
                    ->where('s.state', 'merged')
                    ->count(),
            )
                ->toBe(0)
                ->and(
                    DB::table('sign_ins as i')
                        ->join('people as p', 'p.id', '=', 'i.person_id')
                        ->where('p.state', 'merged')
                        ->count(),
                )
                ->toBe(0)
                ->and(DB::table('people')->where('state', 'merged')->count())
                ->toBeGreaterThanOrEqual(8);
            // A section is archived while a list that was looked at before puts somebody into it.
            $handles = [];
            for ($i = 0; $i < 8; $i++) {
                $section = $world->section($world->school, "Room $i");
                $list = $get($read, "/api/schools/$world->school/intakes", [
                    'text' => "Name\tSection\nFresh$i Willow\tRoom $i\n",
                ]);
                $archive = $get($read, "/api/sections/$section/archive");
                $handles[] = $server->next($client(), '/api/intakes/' . $list['id'] . '/apply', [
                    'fingerprint' => $list['fingerprint'],
                ]);
                $handles[] = $server->next($client(), "/api/sections/$section/archive", [
                    'seed' => $archive['seed'],
                    'fingerprint' => $archive['fingerprint'],
                ]);
            }
            $answers = RealServer::allAtOnce($handles);
            // Every second one archives: what was said to be done is done, and only that.
            $archives = array_filter(
                $answers,
                fn(int $answer, int $n): bool => $n % 2 === 1 && $answer === 200,
                ARRAY_FILTER_USE_BOTH,
            );
            expect(array_diff($answers, [200, 409, 422, 503]))
                ->toBe([])
                ->and(DB::table('sections')->where('state', 'archived')->count())
                ->toBe(count($archives))
                ->and($archives)
                ->not->toBe([])
                ->and(
                    DB::table('imports')
                        ->whereIn('state', ['reading', 'applying'])
                        ->count(),
                )
                ->toBe(0)
                ->and(
                    DB::table('enrollments as e')
                        ->join('sections as s', 's.id', '=', 'e.section_id')
                        ->where('s.state', 'archived')
                        ->whereColumn('e.version', '>', 's.version')
                        ->count(),
                )
                ->toBe(0);
        } finally {
            $server->stop();
            DB::statement("DROP DATABASE `$database`");
            ServerTestCase::useDatabase($own);
        }
    },
);
