<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\OddRequests;
use Tests\Support\RoleMatrix;
use Tests\Support\RouteParameters;
use Tests\Support\World;

it('answers whatever is sent with what is wrong with it, never with a fault of its own', function (): void {
    $world = World::make();
    $parameters = RouteParameters::of($world);
    $odd = new OddRequests(json_decode((string) file_get_contents(base_path('openapi.json')), true));
    $share = (int) (getenv('VANTREL_ODD') ?: 40);
    $faults = [];
    $sent = 0;
    mt_srand((int) (getenv('VANTREL_SEED') ?: 17));
    foreach ($odd->all() as [$method, $uri, $query, $body, $what]) {
        if (mt_rand(1, $share) !== 1) {
            continue;
        }
        $sent++;
        // Some of what is asked sets a limit for itself.
        set_time_limit(0);
        $at = (string) preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $parameters[$m[1]], $uri);
        $roles = RoleMatrix::of()["$method " . ltrim($uri, '/')];
        DB::beginTransaction();
        $this->app['auth']->forgetGuards();
        $request = $roles === 'public' ? $this : $this->actingAs($world->as($roles[0]));
        $answer = $request
            ->withHeaders(['Accept' => 'application/json'])
            ->json($method, $at . ($query === [] ? '' : '?' . http_build_query($query)), $body);
        if ($answer->getStatusCode() >= 500) {
            $faults[] = "$method $uri, $what: {$answer->getStatusCode()} " . ($answer->exception?->getMessage() ?? '');
        }
        while (DB::transactionLevel() > 2) {
            DB::rollBack();
        }
        DB::rollBack();
    }
    expect($faults)->toBe([])->and($sent)->toBeGreaterThan(100);
});
