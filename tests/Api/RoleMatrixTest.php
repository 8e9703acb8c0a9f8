<?php

declare(strict_types=1);

use App\Ledger\Ledger;
use App\Models\OutgoingMessage;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\PlanBuilder;

const ROLES = ['coordinator', 'other coordinator', 'lead', 'co_teacher', 'assistant', 'other teacher', 'student', 'guardian', 'nobody'];

/** Who may call what. Everyone not named must be refused. */
function matrix(): array
{
    $signedIn = ['coordinator', 'other coordinator', 'lead', 'co_teacher', 'assistant', 'other teacher', 'student', 'guardian'];
    $school = ['coordinator'];
    $teach = ['coordinator', 'lead', 'co_teacher'];

    return [
        'POST api/sign-in' => 'public', 'GET api/join/check' => 'public', 'POST api/join/account' => 'public',
        'GET api/invited/{token}' => 'public', 'POST api/invited/{token}/accept' => 'public', 'POST api/invited/{token}/decline' => 'public',
        'GET api/me' => $signedIn, 'POST api/sign-out' => $signedIn, 'GET api/home' => $signedIn, 'POST api/join' => ['student'],
        'GET api/schools/{school}/sections' => ['coordinator', 'lead', 'co_teacher', 'assistant', 'other teacher'],
        'GET api/schools/{school}/desk' => $school, 'GET api/schools/{school}/imports' => $school, 'POST api/schools/{school}/imports' => $school,
        'GET api/schools/{school}/people' => $school, 'GET api/schools/{school}/find' => $school, 'POST api/schools/{school}/sections' => $school,
        'POST api/schools/{school}/cards' => $school, 'GET api/schools/{school}/look-alikes' => $school,
        'GET api/schools/{school}/look-alikes/{left}/{right}' => $school, 'POST api/schools/{school}/look-alikes/{left}/{right}/merge' => $school,
        'POST api/schools/{school}/look-alikes/{left}/{right}/apart' => $school, 'GET api/schools/{school}/year-turn' => $school,
        'POST api/schools/{school}/year-turn/rehearse' => $school, 'POST api/schools/{school}/year-turn' => $school,
        'GET api/schools/{school}/ledger' => $school, 'GET api/schools/{school}/messages' => $school,
        'GET api/people/{person}' => $school,
        'GET api/imports/{import}' => $school, 'GET api/imports/{import}/rows' => $school, 'GET api/imports/{import}/weights' => $school, 'POST api/imports/{import}/weights' => $school, 'DELETE api/schools/{school}/weights' => $school,
        'GET api/imports/{import}/rows-to-mend' => $school, 'GET api/schools/{school}/roster' => $school, 'GET api/sections/{section}/roster' => [...$teach, 'assistant'],
        'POST api/imports/{import}/everyone' => $school, 'POST api/imports/{import}/domain' => $school,
        'POST api/imports/{import}/answers' => $school, 'POST api/imports/{import}/apply' => $school, 'DELETE api/imports/{import}' => $school,
        'GET api/sections/{section}' => [...$teach, 'assistant'], 'POST api/sections/{section}/cards' => [...$teach, 'assistant'],
        'GET api/sections/{section}/code' => $teach, 'POST api/sections/{section}/code' => $teach, 'DELETE api/sections/{section}/code' => $teach,
        'POST api/sections/{section}/invitations' => $teach, 'DELETE api/sections/{section}/people/{person}' => $teach,
        'GET api/sections/{section}/archive' => ['coordinator', 'lead'], 'POST api/sections/{section}/archive' => ['coordinator', 'lead'],
        'POST api/invitations/{invitation}/again' => $teach, 'DELETE api/invitations/{invitation}' => $teach,
        'GET api/ledger/{entry}' => $school, 'POST api/ledger/{entry}/undo' => $school, 'GET api/messages/{message}' => $school,
    ];
}

/** @return list<Route> */
function apiRoutes(): array
{
    return array_values(array_filter(Routes::getRoutes()->getRoutes(), fn (Route $r): bool => str_starts_with($r->uri(), 'api/') && ! $r->isFallback));
}

function routeName(Route $route): string
{
    return $route->methods()[0].' '.$route->uri();
}

it('names every route of the API in the matrix, and no other', function (): void {
    $routes = array_map(routeName(...), apiRoutes());
    sort($routes);
    $named = array_keys(matrix());
    sort($named);
    expect($routes)->toBe($named);
});

it('asks a policy on every route that is not public', function (): void {
    foreach (apiRoutes() as $route) {
        $middleware = $route->gatherMiddleware();
        $guarded = in_array('auth', $middleware, true) && array_filter($middleware, fn (mixed $m): bool => is_string($m) && str_starts_with($m, 'can:')) !== [];
        expect($guarded)->toBe(matrix()[routeName($route)] !== 'public', routeName($route));
    }
});

it('holds for the role', function (string $role): void {
    $world = World::make();
    $twin = $world->student('Wilhelmina Seabright', $world->section);
    $section = new PlanBuilder;
    $section->insert(Entity::KnownApart, (string) Str::ulid(), ['left_id' => min($world->people['student'], $twin), 'right_id' => max($world->people['student'], $twin)], 'test');
    $entry = app(Ledger::class)->apply($section->build('Test', 'Test.'), $world->school, null, 'test');
    $parameters = [
        'school' => $world->school, 'section' => $world->section, 'person' => $world->people['student'], 'left' => $world->people['student'], 'right' => $twin, 'entry' => $entry->id,
        'import' => $world->insert('imports', ['school_id' => $world->school, 'title' => 'x', 'files' => '[]', 'state' => 'planned', 'answers' => '{}', 'made_at' => now(), 'changed_at' => now()], false),
        'invitation' => $world->insert('invitations', ['section_id' => $world->section, 'email' => 'x@lanternfield.example', 'role' => 'assistant', 'state' => 'invited', 'token_hash' => Token::hashOf('t'), 'sent_at' => now(), 'expires_at' => now()->addDay(), 'invited_by' => $world->people['lead']]),
        'message' => OutgoingMessage::query()->create(['id' => (string) Str::ulid(), 'school_id' => $world->school, 'to_address' => 'x@x.example', 'subject' => 's', 'text' => 't', 'made_at' => now()])->id,
    ];
    foreach (apiRoutes() as $route) {
        $allowed = matrix()[routeName($route)];
        if ($allowed === 'public') {
            continue;
        }
        DB::beginTransaction();
        $this->app['auth']->forgetGuards();
        $uri = '/'.preg_replace_callback('/\{(\w+)\}/', fn (array $m): string => $parameters[$m[1]], $route->uri());
        $request = $role === 'nobody' ? $this : $this->actingAs($world->as($role));
        $status = $request->withHeaders(['Accept' => 'application/json'])->json($route->methods()[0], $uri)->getStatusCode();
        // Whoever is let in gets past the policy: what is missing in the request is another matter.
        if (in_array($role, $allowed, true)) {
            expect($status)->not->toBeIn([401, 403, 419, 500], routeName($route)." for $role gave $status");
        } else {
            expect($status)->toBe($role === 'nobody' ? 401 : 403, routeName($route)." for $role gave $status");
        }
        DB::rollBack();
    }
})->with(ROLES);

it('shows no teacher, student or guardian a personal address', function (string $role): void {
    $world = World::make();
    DB::table('people')->where('id', $world->people['student'])->update(['email' => 'private-student@shoremail.example', 'phone' => '+12025550111']);
    DB::table('people')->where('id', $world->people['guardian'])->update(['phone' => '+12025550122']);
    foreach (['/api/me', '/api/home', "/api/schools/$world->school/sections", "/api/sections/$world->section", "/api/sections/$world->section/code"] as $uri) {
        $body = (string) $this->actingAs($world->as($role))->getJson($uri)->getContent();
        expect($body)->not->toContain('shoremail')->not->toContain('12025550');
    }
})->with(['lead', 'co_teacher', 'assistant', 'student', 'guardian']);
