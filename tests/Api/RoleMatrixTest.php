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
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;

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

/** Who may call what. Everyone not named must be refused. */
function matrix(): array
{
    $staff = [
        'coordinator',
        'other coordinator',
        'lead',
        'co_teacher',
        'assistant',
        'substitute',
        'past substitute',
        'other teacher',
    ];
    $grown = [...$staff, 'guardian'];
    $signedIn = [...$grown, 'student'];
    $ours = ['coordinator', 'lead', 'co_teacher', 'assistant', 'substitute', 'past substitute', 'other teacher'];
    $school = ['coordinator'];
    $teach = ['coordinator', 'lead', 'co_teacher'];
    $room = [...$teach, 'substitute'];
    $see = [...$room, 'assistant'];

    return [
        'POST api/sign-in' => 'public',
        'GET api/join/check' => 'public',
        'POST api/invited' => 'public',
        'POST api/invited/accept' => 'public',
        'POST api/invited/decline' => 'public',
        'POST api/sign-in/card' => 'public',
        'GET api/entrance' => 'public',
        'POST api/sign-in/code' => 'public',
        'POST api/forgotten' => 'public',
        'POST api/new-password/check' => 'public',
        'POST api/new-password' => 'public',
        'POST api/join/door' => 'public',
        'POST api/join/names' => 'public',
        'POST api/join/claim' => 'public',
        'POST api/join/ask' => 'public',
        'POST api/join/asked' => 'public',
        'POST api/join/confirm' => 'public',
        'POST api/family/check' => 'public',
        'POST api/family/ask' => 'public',
        'POST api/room' => 'public',
        'POST api/room/enter' => 'public',
        'POST api/password' => $signedIn,
        'GET api/sessions' => $signedIn,
        'DELETE api/sessions' => $signedIn,
        'DELETE api/sessions/{session}' => $signedIn,
        'GET api/second-factor' => $staff,
        'POST api/second-factor' => $staff,
        'POST api/second-factor/confirm' => $staff,
        'DELETE api/second-factor' => $staff,
        'GET api/invitations' => $signedIn,
        'POST api/invitations/{invitation}/answer' => ['other teacher'],
        'GET api/roles' => $signedIn,
        'GET api/languages' => $signedIn,
        'POST api/schools/{school}/many-sections/plan' => $school,
        'POST api/schools/{school}/many-sections' => $school,
        'POST api/schools/{school}/rename-sections/plan' => $school,
        'POST api/schools/{school}/rename-sections' => $school,
        'POST api/schools/{school}/place/plan' => $school,
        'POST api/schools/{school}/place' => $school,
        'GET api/schools/{school}/settings' => $school,
        'POST api/schools/{school}/settings' => $school,
        'GET api/schools/{school}/settings/names' => $school,
        'POST api/schools/{school}/years' => $school,
        'POST api/years/{year}' => $school,
        'GET api/me' => $signedIn,
        'POST api/sign-out' => $signedIn,
        'GET api/home' => $signedIn,
        'POST api/join' => ['student'],
        'POST api/family/connect' => $grown,
        'GET api/schools/{school}/sections' => $ours,
        'GET api/schools/{school}/command' => $ours,
        'GET api/schools/{school}/staff' => ['coordinator', 'lead', 'co_teacher', 'other teacher'],
        'GET api/schools/{school}/desk' => $school,
        'GET api/schools/{school}/desk/counts' => $school,
        'POST api/schools/{school}/desk/put-off' => $school,
        'POST api/schools/{school}/desk/take-back' => $school,
        'POST api/schools/{school}/desk/read' => $school,
        'GET api/schools/{school}/intakes' => $school,
        'POST api/schools/{school}/intakes' => $school,
        'GET api/schools/{realm}/people' => $school,
        'POST api/schools/{school}/people/change/plan' => $school,
        'POST api/schools/{school}/people/change' => $school,
        'GET api/schools/{realm}/find' => $school,
        'GET api/schools/{realm}/desks' => $school,
        'POST api/schools/{realm}/desks/read' => $school,
        'POST api/schools/{realm}/transfer/plan' => $school,
        'POST api/schools/{realm}/transfer' => $school,
        'POST api/schools/{school}/people/named' => $school,
        'GET api/schools/{school}/views' => $school,
        'POST api/schools/{school}/views' => $school,
        'DELETE api/schools/{school}/views/{view}' => $school,
        'POST api/schools/{school}/sections' => $school,
        'GET api/schools/{school}/card-sheet' => $school,
        'GET api/schools/{school}/card-test' => $school,
        'POST api/schools/{school}/cards' => $school,
        'GET api/schools/{school}/claims' => $school,
        'POST api/schools/{school}/claims/{claim}/approve' => $school,
        'POST api/schools/{school}/claims/{claim}/refuse' => $school,
        'GET api/schools/{school}/prints' => $school,
        'GET api/prints/{print}' => $school,
        'GET api/prints/{print}/file' => $school,
        'DELETE api/prints/{print}' => $school,
        'POST api/schools/{school}/letters' => $school,
        'POST api/schools/{school}/letters/counts' => $school,
        'GET api/schools/{school}/letters/wording' => $school,
        'POST api/schools/{school}/letters/wording' => $school,
        'GET api/schools/{school}/letters/sample' => $school,
        'GET api/schools/{school}/slips' => $school,
        'POST api/schools/{school}/slips' => $school,
        'POST api/schools/{school}/codes/print' => $school,
        'GET api/schools/{realm}/look-alikes' => $school,
        'POST api/schools/{realm}/look-alikes/again' => $school,
        'POST api/schools/{realm}/look-alikes/many/plan' => $school,
        'POST api/schools/{realm}/look-alikes/many' => $school,
        'GET api/schools/{realm}/look-alikes/{accounts}' => $school,
        'POST api/schools/{realm}/look-alikes/{accounts}/merge' => $school,
        'POST api/schools/{realm}/look-alikes/{accounts}/apart' => $school,
        'GET api/schools/{school}/year-turn' => $school,
        'POST api/schools/{school}/year-turn/rehearse' => $school,
        'POST api/schools/{school}/year-turn' => $school,
        'GET api/schools/{school}/coverage' => $school,
        'GET api/schools/{school}/coverage/sheet' => $school,
        'GET api/schools/{school}/ledger' => $school,
        'GET api/schools/{school}/ledger/sheet' => $school,
        'GET api/schools/{school}/messages' => $school,
        'GET api/people/{person}' => $school,
        'POST api/people/{person}' => $school,
        'GET api/people/{person}/credentials' => $school,
        'POST api/people/{person}/credentials/end' => $school,
        'POST api/people/{person}/credentials/end-all' => $school,
        'POST api/people/{person}/sign-in-link' => $school,
        'POST api/people/{person}/sign-in-slip' => $school,
        'POST api/people/{person}/off-board/plan' => $school,
        'POST api/people/{person}/off-board' => $school,
        'POST api/people/{person}/erase/plan' => $school,
        'POST api/people/{person}/erase' => $school,
        'GET api/schools/{school}/transfers' => $school,
        'POST api/schools/{school}/transfers/{transfer}/accept' => $school,
        'POST api/schools/{school}/transfers/{transfer}/refuse' => $school,
        'POST api/schools/{school}/transfers/{transfer}/withdraw' => $school,
        'POST api/sections/{section}/requests/refuse-all' => $room,
        'GET api/intakes/{intake}' => $school,
        'GET api/intakes/{intake}/rows' => $school,
        'GET api/intakes/{intake}/sheet' => $school,
        'GET api/intakes/{intake}/weights' => $school,
        'POST api/intakes/{intake}/weights' => $school,
        'DELETE api/schools/{school}/weights' => $school,
        'GET api/intakes/{intake}/rows-to-mend' => $school,
        'GET api/schools/{school}/roster' => $school,
        'GET api/sections/{section}/roster' => $see,
        'POST api/intakes/{intake}/everyone' => $school,
        'POST api/intakes/{intake}/domain' => $school,
        'POST api/intakes/{intake}/answers' => $school,
        'POST api/intakes/{intake}/apply' => $school,
        'DELETE api/intakes/{intake}' => $school,
        'GET api/sections/{section}' => $see,
        'POST api/sections/{section}/as-student' => $see,
        'POST api/sections/{section}/cards' => $see,
        'GET api/sections/{section}/code' => $room,
        'POST api/sections/{section}/code' => $room,
        'POST api/sections/{section}/code/terms' => $room,
        'GET api/sections/{section}/code/print' => $room,
        'GET api/sections/{section}/code/chosen' => $room,
        'DELETE api/sections/{section}/code' => $room,
        'GET api/sections/{section}/requests' => $room,
        'POST api/sections/{section}/requests/{asking}/approve' => $room,
        'POST api/sections/{section}/requests/{asking}/refuse' => $room,
        'POST api/sections/{section}/room-pass' => $room,
        'DELETE api/sections/{section}/room-pass' => $room,
        'DELETE api/sections/{section}/people/{person}/pictures' => $room,
        'POST api/sections/{section}/place/plan' => $teach,
        'POST api/sections/{section}/place' => $teach,
        'POST api/sections/{section}/reserves' => $teach,
        'POST api/sections/{section}/reserves/{person}' => $teach,
        'POST api/sections/{section}/invitations' => $teach,
        'DELETE api/sections/{section}/staff/{person}' => $teach,
        'POST api/sections/{section}' => $teach,
        'POST api/sections/{section}/lead' => ['coordinator', 'lead'],
        'GET api/sections/{section}/archive' => ['coordinator', 'lead'],
        'POST api/sections/{section}/archive' => ['coordinator', 'lead'],
        'POST api/invitations/{invitation}/again' => $teach,
        'DELETE api/invitations/{invitation}' => $teach,
        'GET api/ledger/{entry}' => $school,
        'GET api/ledger/{entry}/undo' => $school,
        'POST api/ledger/{entry}/undo' => $school,
        'POST api/ledger/{entry}/redo' => $school,
        'GET api/messages/{message}' => $school,
    ];
}

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
    $named = array_keys(matrix());
    sort($named);
    expect($routes)->toBe($named);
});

it('asks a policy on every route that is not public', function (): void {
    foreach (apiRoutes() as $route) {
        $middleware = $route->gatherMiddleware();
        $guarded =
            in_array('auth', $middleware, true) &&
            array_filter($middleware, fn(mixed $m): bool => is_string($m) && str_starts_with($m, 'can:')) !== [];
        expect($guarded)->toBe(matrix()[routeName($route)] !== 'public', routeName($route));
    }
});

it('holds for the role', function (string $role): void {
    $world = World::make();
    $twin = $world->student('Wilhelmina Seabright', $world->section);
    $section = new PlanBuilder();
    $section->insert(
        Entity::KnownApart,
        (string) Str::ulid(),
        ['left_id' => min($world->people['student'], $twin), 'right_id' => max($world->people['student'], $twin)],
        'test',
    );
    $entry = app(Ledger::class)->apply($section->build('Test', 'Test.'), $world->school, null, Action::Place);
    $parameters = [
        'school' => $world->school,
        'realm' => $world->school,
        'section' => $world->section,
        'person' => $world->people['student'],
        'view' => $world->insert(
            'roll_views',
            ['school_id' => $world->school, 'name' => 'Mine', 'query' => 'grade=03', 'made_at' => now()],
            false,
        ),
        'accounts' => "{$world->people['student']}-$twin",
        'entry' => $entry->id,
        'intake' => $world->intake(),
        'invitation' => $world->insert('invitations', [
            'section_id' => $world->section,
            'email' => 'ruben.aske@lanternfield.example',
            'role' => 'assistant',
            'state' => 'invited',
            'token_hash' => Token::hashOf('t'),
            'sent_at' => now(),
            'expires_at' => now()->addDay(),
            'invited_by' => $world->people['lead'],
        ]),
        'transfer' => $world->insert('transfer_requests', [
            'person_id' => $world->people['student'],
            'from_school_id' => $world->school,
            'to_school_id' => $world->otherSchool,
            'kind' => 'transfer',
            'state' => 'waiting',
            'said' => '{}',
            'made_at' => now(),
        ]),
        'year' => $world->year,
        'claim' => (string) Str::ulid(),
        'session' => str_repeat('0', 32),
        'asking' => $world->insert('join_requests', [
            'section_id' => $world->section,
            'state' => 'waiting',
            'cause' => 'newcomer',
            'given_name' => 'Marlo',
            'family_name' => 'Quill',
            'made_at' => now(),
        ]),
        'print' => $world->print('coordinator'),
        'message' => OutgoingMessage::query()->create([
            'id' => (string) Str::ulid(),
            'school_id' => $world->school,
            'to_address' => 'x@x.example',
            'subject' => 's',
            'text' => 't',
            'made_at' => now(),
        ])->id,
    ];
    foreach (apiRoutes() as $route) {
        $allowed = matrix()[routeName($route)];
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
