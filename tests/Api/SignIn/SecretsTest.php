<?php

declare(strict_types=1);

use App\Accounts\Views\SessionLine;
use Illuminate\Support\Facades\DB;
use Tests\Support\Tries;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\Totp;

beforeEach(fn() => readyToSignIn($this));

it('lets each grade in by its way', function (): void {
    ($this->rules)(['sign_in_policy' => '1:1 card, 4:4 school, 5:5 own']);
    foreach (
        [
            '01' => 'Students of your grade sign in with the card: point the camera at its square.',
            '04' => 'Students of your grade sign in with the school’s own sign-on.',
        ]
        as $grade => $why
    ) {
        $name = "Kid Grade$grade";
        $id = $this->world->student($name, null, ['grade' => $grade], 'maple otter candy');
        ($this->signIn)("kid.grade$grade", 'maple otter candy')
            ->assertStatus(422)
            ->assertJsonPath('detail', $why);
        // Whoever has not the secret learns nothing of the way.
        ($this->signIn)("kid.grade$grade", 'wrong')->assertJsonPath(
            'detail',
            'That user name and passphrase don’t match. Look at the card again, letter by letter.',
        );
    }
    $this->world->badge($id, 'the-card');
    $this->get('/b/the-card')->assertRedirect('/');
    expect(auth()->id())->toBe($id);
});

it('has older students set a password of their own first, and nothing else before', function (): void {
    ($this->rules)(['sign_in_policy' => '5:5 own']);
    $this->world->student('Noor Haddad', $this->world->section, ['grade' => '05'], 'maple otter candy');
    ($this->signIn)('noor.haddad', 'maple otter candy')
        ->assertOk()
        ->assertJsonPath('me.must', 'password')
        ->assertJsonPath('me.ownPassword', false);
    $this->getJson('/api/home')->assertStatus(403);
    $this->postJson('/api/join', ['code' => $this->world->code])->assertStatus(403);
    $this->getJson('/api/me')->assertOk();
    $this->postJson('/api/password', ['password' => 'noorhaddad'])->assertStatus(422);
    $this->postJson('/api/password', ['password' => 'green boat stone'])
        ->assertOk()
        ->assertJsonPath('must', '')
        ->assertJsonPath('ownPassword', true);
    $this->getJson('/api/home')->assertOk();
    expect(DB::table('sign_ins')->where('user_name', 'noor.haddad')->value('passphrase'))->toBeNull();
    ($this->out)();
    ($this->signIn)('noor.haddad', 'maple otter candy')->assertStatus(422);
    ($this->signIn)('noor.haddad', 'green boat stone')->assertOk()->assertJsonPath('me.must', '');
    $entry = DB::table('ledger_entries')->where('action', 'password')->value('id');
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/ledger/$entry/undo")
        ->assertStatus(422);
});

it('changes the own password with the one before, and ends the other sessions', function (): void {
    ($this->signIn)($this->staff, $this->password)->assertOk();
    DB::table('sessions')->insert([
        'id' => 'elsewhere',
        'user_id' => $this->world->people['lead'],
        'payload' => '',
        'last_activity' => time(),
    ]);
    $this->postJson('/api/password', ['password' => 'four green boats at sea', 'current' => 'wrong'])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['current']]);
    $this->postJson('/api/password', ['password' => 'green boat stone', 'current' => $this->password])->assertOk();
    expect(DB::table('sessions')->where('id', 'elsewhere')->exists())->toBeFalse();
});

it('asks for the second factor, takes each code once, and recovery codes once', function (): void {
    ($this->signIn)($this->staff, $this->password)->assertOk()->assertJsonPath('needs', '');
    $begun = $this->postJson('/api/second-factor')->assertOk();
    $totp = Totp::fromBase32($begun->json('secret'));
    expect($begun->json('qrSize'))
        ->toBeGreaterThan(20)
        ->and((string) DB::table('second_factors')->value('secret'))
        ->not->toContain($begun->json('secret'));
    $this->postJson('/api/second-factor/confirm', ['code' => '000000'])->assertStatus(422);
    $recovery = $this->postJson('/api/second-factor/confirm', ['code' => $totp->at(time())])
        ->assertOk()
        ->assertJsonCount(10, 'recovery')
        ->json('recovery');
    expect((string) DB::table('second_factors')->value('recovery'))->not->toContain($recovery[0]);
    ($this->out)();
    ($this->signIn)($this->staff, $this->password)
        ->assertOk()
        ->assertJson(['me' => null, 'needs' => 'second_factor']);
    $this->getJson('/api/me')->assertStatus(401);
    // The code that confirmed is spent.
    $this->postJson('/api/sign-in/code', ['code' => $totp->at(time())])->assertStatus(422);
    $this->travel(31)->seconds();
    $this->postJson('/api/sign-in/code', ['code' => $totp->at(now()->getTimestamp())])
        ->assertOk()
        ->assertJsonPath('name', 'Petra Okonjo');
    ($this->out)();
    ($this->signIn)($this->staff, $this->password);
    $this->postJson('/api/sign-in/code', ['code' => strtoupper($recovery[3])])->assertOk();
    $this->getJson('/api/second-factor')->assertJson(['on' => true, 'recoveryLeft' => 9]);
    ($this->out)();
    ($this->signIn)($this->staff, $this->password);
    $this->postJson('/api/sign-in/code', ['code' => $recovery[3]])->assertStatus(422);
    for ($i = 0; $i < 4; $i++) {
        $this->postJson('/api/sign-in/code', ['code' => "11111$i"])->assertStatus(422);
    }
    $this->postJson('/api/sign-in/code', ['code' => $recovery[4]])->assertStatus(429);
});

it('lets nobody complete a sign-in that was not begun', function (): void {
    $this->postJson('/api/sign-in/code', ['code' => '123456'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'That took too long. Sign in again from the start.');
});

it('has coordinators set a second factor where the school says so', function (): void {
    ($this->rules)(['second_factor' => 'coordinators']);
    ($this->signIn)($this->staff, $this->password)->assertJsonPath('me.must', '');
    ($this->out)();
    ($this->signIn)('ines.halloran@lanternfield.example', $this->password)->assertJsonPath('me.must', 'second_factor');
    $this->getJson("/api/schools/{$this->world->school}/desk")->assertStatus(403);
    $totp = Totp::fromBase32($this->postJson('/api/second-factor')->json('secret'));
    $this->postJson('/api/second-factor/confirm', ['code' => $totp->at(time())])->assertOk();
    $this->getJson("/api/schools/{$this->world->school}/desk")->assertOk();
    $this->travel(60)->seconds();
    $this->deleteJson('/api/second-factor', ['code' => $totp->at(now()->getTimestamp())])
        ->assertStatus(422)
        ->assertJsonPath(
            'detail',
            'Your school asks for a second factor. Set up another one first: an app for codes or a passkey.',
        );
});

it('stays signed in only where the school offers it, for as long as it says', function (): void {
    ($this->rules)(['stay_days_own' => 10]);
    $this->getJson('/api/entrance')->assertJson(['stayOwn' => true, 'stayShared' => false]);
    ($this->signIn)($this->staff, $this->password, ['stay' => 'own'])->assertOk();
    $this->travel(9)->days();
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/me')->assertOk();
    $this->travel(2)->days();
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/me')->assertStatus(401);
    ($this->out)();
    ($this->signIn)($this->staff, $this->password, ['stay' => 'shared'])->assertOk();
    $this->travel(3)->hours();
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/me')->assertStatus(401);
});

it('lists the own sessions without their ids, and ends them', function (): void {
    ($this->signIn)($this->staff, $this->password)->assertOk();
    DB::table('sessions')->insert([
        [
            'id' => 'tablet',
            'user_id' => $this->world->people['lead'],
            'ip_address' => '192.0.2.7',
            'user_agent' => 'Mozilla/5.0 (iPad; CPU OS 17_0)',
            'payload' => '',
            'last_activity' => time() - 600,
        ],
        [
            'id' => 'foreign',
            'user_id' => $this->world->people['co_teacher'],
            'ip_address' => '192.0.2.8',
            'user_agent' => '',
            'payload' => '',
            'last_activity' => time(),
        ],
    ]);
    $page = $this->getJson('/api/sessions')->assertOk();
    $tablet = collect($page->json('sessions'))->firstWhere('device', 'iPad');
    expect($tablet)
        ->toMatchArray(['from' => '192.0.2.7', 'thisOne' => false])
        ->and((string) $page->getContent())
        ->not->toContain('"tablet"')
        ->not->toContain('192.0.2.8');
    $this->deleteJson("/api/sessions/{$tablet['key']}")->assertNoContent();
    $this->deleteJson("/api/sessions/{$tablet['key']}")->assertStatus(404);
    $this->deleteJson('/api/sessions')->assertNoContent();
    expect(DB::table('sessions')->where('id', 'foreign')->exists())
        ->toBeTrue()
        ->and(DB::table('sessions')->where('id', 'tablet')->exists())
        ->toBeFalse();
});

it('sends a link for a forgotten password, once, in time, and says the same to everybody', function (): void {
    $this->postJson('/api/forgotten', ['user_name' => 'nobody.here'])->assertNoContent();
    $this->postJson('/api/forgotten', ['user_name' => 'wilhelmina.seabright'])->assertNoContent();
    expect(DB::table('outgoing_messages')->count())->toBe(0);
    $this->postJson('/api/forgotten', ['user_name' => ' Petra.Okonjo@lanternfield.example'])->assertNoContent();
    $this->postJson('/api/forgotten', ['user_name' => $this->staff])->assertNoContent();
    [$first, $token] = DB::table('outgoing_messages')
        ->orderBy('id')
        ->pluck('text')
        ->map(fn(string $t): string => preg_match('~/new-password#(\S+)~', $t, $m) === 1 ? $m[1] : '')
        ->all();
    expect(DB::table('password_resets')->pluck('token_hash')->all())->toContain(hash('sha256', $token));
    $this->postJson('/api/new-password/check', ['token' => $token])
        ->assertOk()
        ->assertJson(['userName' => $this->staff]);
    $this->postJson('/api/new-password', ['token' => $token, 'password' => 'short'])->assertStatus(422);
    DB::table('sessions')->insert([
        'id' => 'thief',
        'user_id' => $this->world->people['lead'],
        'payload' => '',
        'last_activity' => time(),
    ]);
    $this->postJson('/api/new-password', [
        'token' => $token,
        'password' => 'four green boats at sea',
    ])->assertNoContent();
    expect(DB::table('sessions')->where('id', 'thief')->exists())->toBeFalse();
    // Spent, and with it every other link of that sign-in.
    $this->postJson('/api/new-password', ['token' => $token, 'password' => 'five green boats at sea'])->assertStatus(
        404,
    );
    $this->postJson('/api/new-password/check', ['token' => $first])->assertStatus(404);
    ($this->signIn)($this->staff, 'four green boats at sea')->assertOk();
    ($this->out)();
    $this->postJson('/api/forgotten', ['user_name' => $this->staff]);
    preg_match('~/new-password#(\S+)~', (string) DB::table('outgoing_messages')->orderByDesc('id')->value('text'), $m);
    $this->travel(61)->minutes();
    $this->postJson('/api/new-password/check', ['token' => $m[1]])->assertStatus(404);
});

it('takes a lost second factor off by the command, with the sessions', function (): void {
    DB::table('second_factors')->insert([
        'person_id' => $this->world->people['lead'],
        'secret' => 'x',
        'confirmed_at' => now(),
        'recovery' => '[]',
    ]);
    DB::table('sessions')->insert([
        'id' => 'elsewhere',
        'user_id' => $this->world->people['lead'],
        'payload' => '',
        'last_activity' => time(),
    ]);
    $this->artisan('vantrel:second-factor-off', ['user' => strtoupper($this->staff)])->assertExitCode(0);
    expect(DB::table('second_factors')->count())
        ->toBe(0)
        ->and(DB::table('sessions')->where('id', 'elsewhere')->exists())
        ->toBeFalse();
    $this->artisan('vantrel:second-factor-off', ['user' => $this->staff])->assertExitCode(1);
});

it('asks for the password of now a few times only, and sends few links', function (): void {
    ($this->signIn)($this->staff, $this->password)->assertOk();
    for ($i = 0; $i < 5; $i++) {
        $this->postJson('/api/password', ['password' => 'three boats go to sea', 'current' => "guess $i"])
            ->assertStatus(422)
            ->assertJsonPath('errors.current.0', 'That is not your password now.');
    }
    $this->postJson('/api/password', ['password' => 'three boats go to sea', 'current' => $this->password])
        ->assertStatus(429)
        ->assertJsonPath('detail', 'There have been too many tries. Wait 15 minutes, then try again.')
        ->assertHeader('Retry-After');
    ($this->out)();
    for ($i = 0; $i < 8; $i++) {
        $this->postJson('/api/forgotten', ['user_name' => $this->staff])->assertNoContent();
    }
    expect(DB::table('password_resets')->count())->toBe(5);
    $this->travel(61)->minutes();
    $this->postJson('/api/forgotten', ['user_name' => $this->staff])->assertNoContent();
    expect(DB::table('password_resets')->count())->toBe(6);
});

it('rests an account after wrong secrets, and an address only after many, whoever is meant', function (): void {
    for ($i = 0; $i < 10; $i++) {
        ($this->signIn)($this->staff, "guess $i")->assertStatus(422);
    }
    ($this->signIn)($this->staff, $this->password)->assertStatus(429);
    // Others behind the same address come in.
    ($this->signIn)('marten.vale@lanternfield.example', $this->password)->assertOk();
    ($this->out)();
    // Somebody there searches: who types what is right is let in, who does not is looked at once.
    Tries::have(Limit::SignInAddress, '127.0.0.1', 400);
    ($this->signIn)('odile.kerr@lanternfield.example', $this->password)->assertOk();
    ($this->out)();
    ($this->signIn)('ruben.aske@lanternfield.example', 'wrong')->assertStatus(422);
    ($this->signIn)('ruben.aske@lanternfield.example', $this->password)->assertStatus(429);
    Tries::have(Limit::CardAddress, '127.0.0.1', 300);
    $this->get('/b/no-such-card')->assertRedirect('/?card=wait');
    $this->travel(16)->minutes();
    ($this->signIn)($this->staff, $this->password)->assertOk();
});

it('says of a session what kind of device it is on, and no more', function (string $agent, string $device): void {
    expect(SessionLine::device($agent))->toBe($device);
})->with([
    ['Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) AppleWebKit/605.1.15', 'iPad'],
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X)', 'iPhone'],
    ['Mozilla/5.0 (Linux; Android 14; Pixel) Mobile Safari/537.36', 'Android phone'],
    ['Mozilla/5.0 (Linux; Android 14; Tab) Safari/537.36', 'Android tablet'],
    ['Mozilla/5.0 (X11; CrOS x86_64 14541.0.0)', 'Chromebook'],
    ['Mozilla/5.0 (Windows NT 10.0; Win64; x64)', 'Windows computer'],
    ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7)', 'Mac'],
    ['Mozilla/5.0 (X11; Linux x86_64)', 'Linux computer'],
    ['curl/8.0', 'a device'],
]);
