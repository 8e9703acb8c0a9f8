<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\RealServer;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

it(
    'lets exactly as many in as the cap says when two hundred enter one code at once, and nobody twice',
    function (): void {
        $own = (string) config('database.connections.mariadb.database');
        $database = $own . '_rush';
        ServerTestCase::useDatabase($database);
        $world = World::make();
        DB::table('join_codes')->update(['cap' => 30]);
        $handles = [];
        $server = RealServer::start($database);
        $address = $server->address;
        try {
            for ($i = 0; $i < 200; $i++) {
                $world->badge($world->student("Pupil Number$i"), "card-$i");
                $handles[] = $handle = curl_init("$address/b/card-$i");
                curl_setopt_array($handle, [
                    CURLOPT_RETURNTRANSFER => true,
                    CURLOPT_COOKIEFILE => '',
                    CURLOPT_TIMEOUT => 60,
                ]);
            }
            expect(array_unique(RealServer::allAtOnce($handles)))->toBe([302]);
            foreach ($handles as $handle) {
                $xsrf = '';
                foreach (curl_getinfo($handle, CURLINFO_COOKIELIST) as $cookie) {
                    $parts = explode("\t", $cookie);
                    $xsrf = $parts[5] === 'XSRF-TOKEN' ? urldecode($parts[6]) : $xsrf;
                }
                curl_setopt_array($handle, [
                    CURLOPT_URL => "$address/api/join",
                    CURLOPT_POST => true,
                    CURLOPT_POSTFIELDS => json_encode(['code' => $world->code]),
                    CURLOPT_HTTPHEADER => [
                        'Content-Type: application/json',
                        'Accept: application/json',
                        "X-XSRF-TOKEN: $xsrf",
                    ],
                ]);
            }
            $statuses = array_count_values(RealServer::allAtOnce($handles));
            ksort($statuses);
            expect($statuses)->toBe([200 => 30, 422 => 170]);
            $told = array_count_values(
                array_map(
                    fn(CurlHandle $h): string => (string) (json_decode((string) curl_multi_getcontent($h), true)[
                        'detail'
                    ] ?? 'in'),
                    $handles,
                ),
            );
            expect($told)->toHaveKey(
                'All places for this code are taken. Tell your teacher, who can let more in.',
                170,
            );
            // Everyone presses again: who is in hears so, the others are told again, and nobody comes in a second time.
            expect(array_count_values(RealServer::allAtOnce($handles)))->toBe($statuses);
            $in = DB::table('enrollments')->where('source', 'code');
            expect((clone $in)->count())
                ->toBe(30)
                ->and((clone $in)->distinct()->count('person_id'))
                ->toBe(30)
                ->and(DB::table('ledger_entries')->where('action', 'join')->count())
                ->toBe(30);
            // One student, the same code twenty times at once: in once.
            DB::table('join_codes')->update(['cap' => null]);
            $out = array_values(
                array_filter(
                    $handles,
                    fn(CurlHandle $h): bool => (int) curl_getinfo($h, CURLINFO_RESPONSE_CODE) === 422,
                ),
            );
            $cookies = implode(
                '; ',
                array_map(
                    fn(string $c): string => implode('=', array_slice(explode("\t", $c), 5, 2)),
                    curl_getinfo($out[0], CURLINFO_COOKIELIST),
                ),
            );
            $same = [];
            for ($i = 0; $i < 20; $i++) {
                $same[] = $copy = curl_copy_handle($out[0]);
                curl_setopt($copy, CURLOPT_COOKIE, $cookies);
            }
            expect(array_unique(RealServer::allAtOnce($same)))
                ->toBe([200])
                ->and((clone $in)->count())
                ->toBe(31);
        } finally {
            $server->stop();
            DB::statement("DROP DATABASE `$database`");
            ServerTestCase::useDatabase($own);
        }
    },
);
