<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\HostileRequests;
use Tests\Support\RoleMatrix;
use Tests\Support\RouteParameters;
use Tests\Support\World;

// Here a share of them, and that each is refused or done in order; `bin/campaign hostile` sends all, and holds what
// each costs: no answer takes more than a second of the processor or 128 MB.

it('refuses what is sent to cost, before it does', function (): void {
    $world = World::make();
    $parameters = RouteParameters::of($world);
    $whole = getenv('VANTREL_HOSTILE') === '1';
    $hostile = new HostileRequests(json_decode((string) file_get_contents(base_path('openapi.json')), true));
    $faults = $dear = [];
    $sent = 0;
    [$seconds, $bytes] = [[0.0, ''], [0, '']];
    foreach ($hostile->all() as $n => [$method, $uri, $body, $what]) {
        if (!$whole && $n % 150 !== 0) {
            continue;
        }
        $sent++;
        $at = (string) preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $parameters[$m[1]], $uri);
        $roles = RoleMatrix::of()["$method " . ltrim($uri, '/')];
        DB::beginTransaction();
        DB::table('tries')->delete();
        $this->app['auth']->forgetGuards();
        $request = $roles === 'public' ? $this : $this->actingAs($world->as($roles[0]));
        $before = memory_get_usage();
        memory_reset_peak_usage();
        $begin = getrusage() ?: [];
        $answer = $request->withHeaders(['Accept' => 'application/json'])->json($method, $at, $body);
        $end = getrusage() ?: [];
        $took =
            $end['ru_utime.tv_sec'] -
            $begin['ru_utime.tv_sec'] +
            ($end['ru_utime.tv_usec'] - $begin['ru_utime.tv_usec']) / 1e6;
        $held = memory_get_peak_usage() - $before;
        $line = "$method $uri, $what: {$answer->getStatusCode()}";
        $seconds = $took > $seconds[0] ? [$took, $line] : $seconds;
        $bytes = $held > $bytes[0] ? [$held, $line] : $bytes;
        if ($answer->getStatusCode() >= 500) {
            $faults[] = $line;
        }
        if ($whole && ($took > 1.0 || $held > 128 * 1024 * 1024)) {
            $dear[] = sprintf('%s, %.2f s, %.0f MB', $line, $took, $held / 1e6);
            fwrite(STDERR, end($dear) . "\n");
        }
        while (DB::transactionLevel() > 2) {
            DB::rollBack();
        }
        DB::rollBack();
    }
    if ($whole) {
        printf(
            "%d requests; at most %.2f s of the processor (%s) and %.0f MB (%s).\n",
            $sent,
            $seconds[0],
            $seconds[1],
            $bytes[0] / 1e6,
            $bytes[1],
        );
    }
    expect($faults)->toBe([])->and($dear)->toBe([])->and($sent)->toBeGreaterThan(10);
});
