<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\ServerTestCase;
use Tests\Support\World;

/**
 * Starts a real web server with eight workers on the database at hand.
 *
 * @return array{resource, string} process and address
 */
function webServer(string $database): array
{
    $socket = stream_socket_server('tcp://127.0.0.1:0');
    $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
    fclose($socket);
    $environment = [...getenv(), 'DB_DATABASE' => $database, 'CACHE_STORE' => 'database', 'SESSION_DRIVER' => 'database', 'PHP_CLI_SERVER_WORKERS' => '8', 'APP_URL' => "http://127.0.0.1:$port"];
    // A session of its own, so that the workers end with their parent.
    $process = proc_open(['setsid', PHP_BINARY, '-d', 'variables_order=EGPCS', '-S', "127.0.0.1:$port", base_path('vendor/laravel/framework/src/Illuminate/Foundation/resources/server.php')], [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']], $pipes, public_path(), $environment);
    expect($process)->toBeResource();
    for ($i = 0; $i < 100 && @file_get_contents("http://127.0.0.1:$port/up") !== 'up'; $i++) {
        usleep(100_000);
    }

    return [$process, "http://127.0.0.1:$port"];
}

/**
 * Sends all requests at once.
 *
 * @param  list<CurlHandle>  $handles
 * @return list<int> their statuses
 */
function allAtOnce(array $handles): array
{
    $multi = curl_multi_init();
    foreach ($handles as $handle) {
        curl_multi_add_handle($multi, $handle);
    }
    do {
        curl_multi_exec($multi, $running);
        curl_multi_select($multi, 0.2);
    } while ($running > 0);
    $statuses = array_map(fn (CurlHandle $h): int => (int) curl_getinfo($h, CURLINFO_RESPONSE_CODE), $handles);
    foreach ($handles as $handle) {
        curl_multi_remove_handle($multi, $handle);
    }
    curl_multi_close($multi);

    return $statuses;
}

it('lets exactly as many in as the cap says when two hundred enter one code at once, and nobody twice', function (): void {
    $own = (string) config('database.connections.mariadb.database');
    $database = $own.'_rush';
    ServerTestCase::useDatabase($database);
    $world = World::make();
    DB::table('join_codes')->update(['cap' => 30]);
    $handles = [];
    [$process, $address] = webServer($database);
    try {
        for ($i = 0; $i < 200; $i++) {
            $world->badge($world->student("Pupil Number$i"), "card-$i");
            $handles[] = $handle = curl_init("$address/b/card-$i");
            curl_setopt_array($handle, [CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEFILE => '', CURLOPT_TIMEOUT => 60]);
        }
        expect(array_unique(allAtOnce($handles)))->toBe([302]);
        foreach ($handles as $handle) {
            $xsrf = '';
            foreach (curl_getinfo($handle, CURLINFO_COOKIELIST) as $cookie) {
                $parts = explode("\t", $cookie);
                $xsrf = $parts[5] === 'XSRF-TOKEN' ? urldecode($parts[6]) : $xsrf;
            }
            curl_setopt_array($handle, [CURLOPT_URL => "$address/api/join", CURLOPT_POST => true, CURLOPT_POSTFIELDS => json_encode(['code' => $world->code]), CURLOPT_HTTPHEADER => ['Content-Type: application/json', 'Accept: application/json', "X-XSRF-TOKEN: $xsrf"]]);
        }
        $statuses = array_count_values(allAtOnce($handles));
        ksort($statuses);
        expect($statuses)->toBe([200 => 30, 422 => 170]);
        $told = array_count_values(array_map(fn (CurlHandle $h): string => (string) (json_decode((string) curl_multi_getcontent($h), true)['detail'] ?? 'in'), $handles));
        expect($told)->toHaveKey('All places for this code are taken. Tell your teacher, who can let more in.', 170);
        // Everyone presses again: who is in hears so, the others are told again, and nobody comes in a second time.
        expect(array_count_values(allAtOnce($handles)))->toBe($statuses);
        $in = DB::table('enrollments')->where('source', 'code');
        expect((clone $in)->count())->toBe(30)->and((clone $in)->distinct()->count('person_id'))->toBe(30)->and(DB::table('ledger_entries')->where('action', 'join')->count())->toBe(30);
        // One student, the same code twenty times at once: in once.
        DB::table('join_codes')->update(['cap' => null]);
        $out = array_values(array_filter($handles, fn (CurlHandle $h): bool => (int) curl_getinfo($h, CURLINFO_RESPONSE_CODE) === 422));
        $cookies = implode('; ', array_map(fn (string $c): string => implode('=', array_slice(explode("\t", $c), 5, 2)), curl_getinfo($out[0], CURLINFO_COOKIELIST)));
        $same = [];
        for ($i = 0; $i < 20; $i++) {
            $same[] = $copy = curl_copy_handle($out[0]);
            curl_setopt($copy, CURLOPT_COOKIE, $cookies);
        }
        expect(array_unique(allAtOnce($same)))->toBe([200])->and((clone $in)->count())->toBe(31);
    } finally {
        posix_kill(-proc_get_status($process)['pid'], SIGTERM);
        proc_close($process);
        DB::statement("DROP DATABASE `$database`");
        ServerTestCase::useDatabase($own);
    }
});
