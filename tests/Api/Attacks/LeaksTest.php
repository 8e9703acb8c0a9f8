<?php

declare(strict_types=1);

use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Log;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */

beforeEach(fn() => readyForAttacks($this));

// 11. Smaller.

it('tells a right birth date of an account in use from a wrong one in no way', function (): void {
    $id = $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04']);
    $newcomer = [
        'code' => $this->world->code,
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
        'password' => 'green boat stone',
    ];
    $key = $this->postJson('/api/join/names', $newcomer)->json('names.0.key');
    DB::table('sign_ins')
        ->where('person_id', $id)
        ->update(['last_signed_in_at' => now()]);
    $this->postJson('/api/join/names', $newcomer)->assertJsonPath('names', []);
    $right = $this->postJson('/api/join/claim', [...$newcomer, 'key' => $key, 'proof' => '2012-05-04']);
    $wrong = $this->postJson('/api/join/claim', [...$newcomer, 'key' => $key, 'proof' => '2012-05-05']);
    expect($right->getStatusCode())
        ->toBe($wrong->getStatusCode())
        ->and($right->getContent())
        ->toBe($wrong->getContent());
});

it('shows a teacher nothing of how near a birth date comes', function (): void {
    $this->world->student('Marlo Quillfeather', $this->world->otherSection, [
        'birth_date' => '2012-05-04',
        'number' => '020777',
    ]);
    $seen = [];
    foreach (['2012-05-04', '2012-05-05', '1999-12-31'] as $guess) {
        ($this->ask)(($this->browser)(), [
            'given_name' => 'Marlo',
            'family_name' => 'Quillfeather',
            'birth_date' => $guess,
        ]);
        $request = ($this->as)('lead')
            ->getJson("/api/sections/$this->section/requests")
            ->json('requests.0');
        $seen[] = $request['mayBe'];
        $this->postJson("/api/sections/$this->section/requests/{$request['id']}/refuse");
        auth()->logout();
    }
    expect($seen[1])
        ->toEqual($seen[0])
        ->and($seen[2])
        ->toEqual($seen[0])
        ->and(json_encode($seen[0]))
        ->not->toContain('birth')
        ->not->toContain('number')
        ->and($seen[0][0]['name'])
        ->toBe('Marlo Q.');
    ($this->ask)(($this->browser)(), [
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
        'birth_date' => '2012-05-05',
    ]);
    $full = ($this->as)('coordinator')
        ->getJson("/api/sections/$this->section/requests")
        ->json('requests.0.mayBe.0.evidence');
    expect(array_column($full, 'field'))->toContain('birth date');
});

it('lets what a page asks by itself keep no session open', function (): void {
    $left = ($this->browser)();
    $left->signIn($this->lead, $this->password);
    for ($i = 0; $i < 13; $i++) {
        $this->travel(10)->minutes();
        $this->withHeaders(['X-Vantrel-By-Itself' => '1']);
        $left->get('/api/me');
    }
    $this->flushHeaders();
    expect($left->who())->toBeNull();
    $used = ($this->browser)();
    $used->signIn($this->lead, $this->password);
    for ($i = 0; $i < 13; $i++) {
        $this->travel(10)->minutes();
        $used->get('/api/me')->assertOk();
    }
});

it('leaves whoever is signed in signed in when a link to a card is followed', function (): void {
    $this->world->badge($this->world->people['student'], 'a-card');
    $lead = ($this->browser)();
    $lead->signIn($this->lead, $this->password);
    expect($lead->get('/b/a-card')->headers->get('Location'))
        ->toBe('/b#a-card')
        ->and($lead->who())
        ->toBe($this->world->people['lead']);
    $lead
        ->post('/api/sign-in/card', ['token' => 'a-card'])
        ->assertJson(['needs' => 'instead', 'me' => ['name' => 'Petra Okonjo']]);
    expect($lead->who())->toBe($this->world->people['lead']);
    $lead->post('/api/sign-in/card', ['token' => 'a-card', 'instead' => true])->assertJsonPath('needs', '');
    expect($lead->who())->toBe($this->world->people['student']);
    $lead->post('/api/sign-in/card', ['token' => 'a-card'])->assertJsonPath('needs', '');
});

it('answers an id that is none with 404, and notes no value anybody typed', function (string $id): void {
    $notes = [];
    Log::listen(function ($note) use (&$notes): void {
        $notes[] = $note->message . json_encode($note->context);
    });
    ($this->as)('coordinator');
    foreach (
        [
            "/api/people/$id",
            "/api/schools/$id/desk",
            "/api/sections/$id",
            "/api/intakes/$id",
            "/api/ledger/$id",
            "/api/schools/{$this->world->school}/look-alikes/$id-$id",
            "/api/messages/$id",
        ]
        as $uri
    ) {
        $this->getJson($uri)->assertStatus(404);
    }
    $this->postJson("/api/sections/$this->section/place/plan", ['kind' => 'remove', 'people' => [$id]])->assertStatus(
        422,
    );
    $this->postJson("/api/sections/$this->section/lead", ['person' => $id])->assertStatus(422);
    expect($notes)->toBe([]);
})->with(['ünïcödé', str_repeat('ä', 26), '%00', "01K3CNQ0000000000000000'--", str_repeat('I', 26), '🙂']);

it('notes the statement that failed and not what was in it', function (): void {
    $notes = [];
    Log::listen(function ($note) use (&$notes): void {
        $notes[] = $note->message . json_encode($note->context);
    });
    report(
        new Illuminate\Database\QueryException(
            'mariadb',
            'select * from people where email = ?',
            ['private@shoremail.example'],
            new PDOException("Duplicate entry 'private@shoremail.example'"),
        ),
    );
    expect($notes)->toHaveCount(1)->and($notes[0])->toContain('email = ?')->not->toContain('private@shoremail');
});

it('takes as long, and sends as few, whether an address is known or not', function (): void {
    $real = Illuminate\Support\Facades\Queue::getFacadeRoot();
    $statements = function (string $typed): int {
        Illuminate\Support\Facades\Queue::fake();
        DB::flushQueryLog();
        DB::enableQueryLog();
        ($this->browser)()
            ->post('/api/forgotten', ['user_name' => $typed])
            ->assertNoContent();

        return count(DB::getQueryLog());
    };
    expect($statements($this->lead))->toBe($statements('nobody@lanternfield.example'));
    // By user name and by address: one count for one person.
    Illuminate\Support\Facades\Queue::swap($real);
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['email' => 'petra@lanternfield.example']);
    foreach (
        [
            $this->lead,
            'petra@lanternfield.example',
            'PETRA@lanternfield.example ',
            $this->lead,
            'petra@lanternfield.example',
            $this->lead,
            'petra@lanternfield.example',
        ]
        as $typed
    ) {
        App\Accounts\Jobs\SendReset::dispatchSync(Vantrel\Core\Accounts\UserNames::fold($typed));
    }
    expect(DB::table('outgoing_messages')->count())->toBe(5);
});

it('says nothing that a request says of its host', function (): void {
    $this->world->badge($this->world->people['student'], 'a-card');
    foreach (['/b/a-card', '/b/none', '/school-sign-on', '/school-sign-on/back?state=x', '/api/home', '/'] as $uri) {
        $response = $this->get($uri, ['Host' => 'evil.example', 'X-Forwarded-Host' => 'evil.example']);
        expect((string) $response->headers->get('Location') . $response->getContent())->not->toContain('evil.example');
    }
    config(['app.url' => 'https://school.example']);
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    expect(DB::table('outgoing_messages')->value('text'))->toContain('https://school.example/new-password#');
});

it('keeps secrets out of the addresses that servers write down', function (): void {
    foreach (Illuminate\Support\Facades\Route::getRoutes()->getRoutes() as $route) {
        if (str_starts_with($route->uri(), 'api/')) {
            expect($route->parameterNames())->not->toContain('token');
        }
    }
    $this->world->badge($this->world->people['student'], 'a-card');
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    $text = (string) DB::table('outgoing_messages')->value('text');
    preg_match('~(https?://\S+)~', $text, $m);
    expect(parse_url($m[1], PHP_URL_PATH))
        ->toBe('/new-password')
        ->and((string) parse_url($m[1], PHP_URL_FRAGMENT))
        ->toMatch('/^[\w-]{22}$/');
});

it('shows the links of mails to nobody but their receivers, once it is no demo', function (): void {
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    $id = DB::table('outgoing_messages')->value('id');
    config(['vantrel.stand_ins' => false]);
    $text = ($this->as)('coordinator')
        ->getJson("/api/messages/$id")
        ->json('text');
    expect($text)->toContain('/new-password#…')->not->toMatch('/#[\w-]{16,}/');
    expect(json_encode($this->getJson("/api/schools/{$this->world->school}/messages")->json()))->not->toMatch(
        '/#[\w-]{16,}/',
    );
});

// 12.

it('hands a substitute no lead', function (): void {
    foreach (['lead', 'coordinator'] as $role) {
        ($this->as)($role)
            ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['substitute']])
            ->assertStatus(422)
            ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'substitute until'));
    }
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertOk();
});

// 4. Limits slow down, and shut nobody out: in one process here, with a real server and many at once in LimitsTest.

it('lets no wrong tries elsewhere keep somebody out of a device they have signed in on', function (): void {
    $own = ($this->browser)();
    $own->signIn($this->lead, $this->password)->assertOk();
    $own->post('/api/sign-out');
    $attacker = ($this->browser)();
    for ($i = 0; $i < 12; $i++) {
        $attacker->signIn($this->lead, "guess $i");
    }
    $attacker->signIn($this->lead, $this->password)->assertStatus(429);
    $own->signIn($this->lead, $this->password)->assertOk();
    // On the known device too there is an end to guessing.
    $own->post('/api/sign-out');
    for ($i = 0; $i < 10; $i++) {
        $own->signIn($this->lead, "guess $i")->assertStatus(422);
    }
    $own->signIn($this->lead, $this->password)->assertStatus(429);
});

it('empties a door that somebody has filled, and a new code has a door of its own', function (): void {
    foreach (range(1, 200) as $i) {
        $this->world->insert('join_requests', [
            'section_id' => $this->section,
            'join_code_id' => DB::table('join_codes')->value('id'),
            'state' => 'waiting',
            'cause' => 'newcomer',
            'given_name' => "A$i",
            'family_name' => 'B',
            'made_at' => now(),
        ]);
    }
    ($this->ask)(($this->browser)())->assertStatus(422);
    $code = ($this->as)('lead')
        ->postJson("/api/sections/$this->section/code")
        ->assertOk()
        ->json('written');
    auth()->logout();
    ($this->ask)(($this->browser)(), ['code' => $code])->assertOk();
    ($this->as)('substitute')
        ->postJson("/api/sections/$this->section/requests/refuse-all")
        ->assertOk()
        ->assertJsonPath('requests', []);
    expect(DB::table('join_requests')->where('state', 'waiting')->count())
        ->toBe(0)
        ->and(DB::table('ledger_entries')->where('action', 'turn-away')->count())
        ->toBe(1);
    ($this->undo)('turn-away');
    expect(DB::table('join_requests')->where('state', 'waiting')->count())->toBe(201);
});

it('runs no stand-in in production, whatever the settings say', function (): void {
    $value = fn(string $environment): mixed => trim(
        (string) shell_exec(
            'cd ' .
                escapeshellarg(base_path()) .
                " && APP_ENV=$environment VANTREL_STAND_INS=true php -r 'require \"vendor/autoload.php\"; " .
                "\$c = require \"config/vantrel.php\"; echo json_encode(\$c[\"stand_ins\"]);'",
        ),
    );
    expect($value('production'))->toBe('false')->and($value('demo'))->toBe('true');
});
