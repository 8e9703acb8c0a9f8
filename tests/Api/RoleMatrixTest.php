<?php

declare(strict_types=1);

use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Tests\Support\RoleMatrix;
use Tests\Support\RouteParameters;
use Tests\Support\World;

const ROLES = [
    'coordinator',
    'other coordinator',
    'lead',
    'co_teacher',
    'assistant',
    'substitute',
    'past substitute',
    'other teacher',
    'student',
    'guardian',
    'nobody',
];

/** @return list<Route> */
function apiRoutes(): array
{
    return array_values(
        array_filter(
            Routes::getRoutes()->getRoutes(),
            fn(Route $r): bool => str_starts_with($r->uri(), 'api/') && !$r->isFallback,
        ),
    );
}

function routeName(Route $route): string
{
    return $route->methods()[0] . ' ' . $route->uri();
}

it('names every route of the API in the matrix, and no other', function (): void {
    $routes = array_map(routeName(...), apiRoutes());
    sort($routes);
    $named = array_keys(RoleMatrix::of());
    sort($named);
    expect($routes)->toBe($named);
});

it('asks a policy on every route that is not public', function (): void {
    foreach (apiRoutes() as $route) {
        $middleware = $route->gatherMiddleware();
        $guarded =
            in_array('auth', $middleware, true) &&
            array_filter($middleware, fn(mixed $m): bool => is_string($m) && str_starts_with($m, 'can:')) !== [];
        expect($guarded)->toBe(RoleMatrix::of()[routeName($route)] !== 'public', routeName($route));
    }
});

it('holds for the role', function (string $role): void {
    $world = World::make();
    $parameters = RouteParameters::of($world);
    foreach (apiRoutes() as $route) {
        $allowed = RoleMatrix::of()[routeName($route)];
        if ($allowed === 'public') {
            continue;
        }
        DB::beginTransaction();
        $this->app['auth']->forgetGuards();
        $uri = '/' . preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $parameters[$m[1]], $route->uri());
        $request = $role === 'nobody' ? $this : $this->actingAs($world->as($role));
        $status = $request
            ->withHeaders(['Accept' => 'application/json'])
            ->json($route->methods()[0], $uri)
            ->getStatusCode();
        $print = getenv('VANTREL_MATRIX');
        if (is_string($print) && $print !== '') {
            file_put_contents($print, '| ' . routeName($route) . " | $role | own | $status |\n", FILE_APPEND);
        }
        // Whoever is let in gets past the policy: what is missing in the request is another matter.
        if (in_array($role, $allowed, true)) {
            expect($status)->not->toBeIn([401, 403, 419, 500], routeName($route) . " for $role gave $status");
        } else {
            expect($status)->toBe($role === 'nobody' ? 401 : 403, routeName($route) . " for $role gave $status");
        }
        DB::rollBack();
    }
})->with(ROLES);

it('shows no teacher, student or guardian a personal address', function (string $role): void {
    $world = World::make();
    DB::table('people')
        ->where('id', $world->people['student'])
        ->update(['email' => 'private-student@shoremail.example', 'phone' => '+12025550111']);
    DB::table('people')
        ->where('id', $world->people['guardian'])
        ->update(['phone' => '+12025550122']);
    $world->insert('join_requests', [
        'section_id' => $world->section,
        'state' => 'waiting',
        'cause' => 'newcomer',
        'given_name' => 'Wilhelmina',
        'family_name' => 'Seabright',
        'birth_date' => '2018-02-11',
        'email' => 'newcomer@shoremail.example',
        'made_at' => now(),
    ]);
    DB::table('people')
        ->where('id', $world->people['other teacher'])
        ->update(['email' => 'ruben@shoremail.example']);
    $seen = 0;
    foreach (
        [
            'me',
            'home',
            'sessions',
            'invitations',
            'roles',
            "schools/$world->school/sections",
            "schools/$world->school/staff",
            "sections/$world->section",
            "sections/$world->section/code",
            "sections/$world->section/requests",
            "sections/$world->section/as-student POST",
        ]
        as $uri
    ) {
        $request = $this->actingAs($world->as($role));
        $answer = str_ends_with($uri, ' POST')
            ? $request->postJson('/api/' . substr($uri, 0, -5))
            : $request->getJson("/api/$uri");
        $seen += $answer->isOk() ? 1 : 0;
        expect((string) $answer->getContent())
            ->not->toContain('shoremail')
            ->not->toContain('12025550')
            ->not->toContain('2018-02-11');
    }
    expect($seen)->toBeGreaterThan(3);
})->with(['lead', 'co_teacher', 'assistant', 'substitute', 'student', 'guardian']);
