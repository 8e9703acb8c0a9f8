<?php

declare(strict_types=1);

use App\StandIns\OpenIdKeys;
use Firebase\JWT\JWT;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

beforeEach(fn() => readyToSignIn($this));

it('signs in by the school’s provider, and from then on by the provider’s own name for the person', function (): void {
    standIn($this);
    $this->get(throughProvider($this, $this->staff))->assertRedirect('/');
    expect(auth()->id())->toBe($this->world->people['lead']);
    ($this->out)();
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['email' => 'married.name@lanternfield.example']);
    DB::table('people')
        ->where('id', $this->world->people['co_teacher'])
        ->update(['email' => $this->staff]);
    $this->get(throughProvider($this, $this->staff))->assertRedirect('/');
    expect(auth()->id())
        ->toBe($this->world->people['lead'])
        ->and(DB::table('identities')->count())
        ->toBe(1);
});

it('takes no answer of the provider twice, without its beginning, or for somebody unknown', function (): void {
    standIn($this);
    $back = throughProvider($this, $this->staff);
    $this->get($back);
    ($this->out)();
    $this->get($back)->assertRedirect('/');
    $this->assertGuest();
    $this->getJson('/api/entrance')->assertJsonPath(
        'note',
        'That sign-in was not begun here, or took too long. Begin again.',
    );
    $this->getJson('/api/entrance')->assertJsonPath('note', '');
    // The answer to somebody else's beginning: the state is another.
    $stolen = throughProvider($this, $this->staff);
    $this->flushSession();
    $this->get('/school-sign-on');
    $this->get($stolen)->assertRedirect('/');
    $this->assertGuest();
    $this->get(throughProvider($this, 'nobody@lanternfield.example'));
    $this->getJson('/api/entrance')->assertJsonPath(
        'note',
        'The school’s sign-on knows you, but there is no account here with that address. Ask the coordinator.',
    );
});

it('follows the provider when it changes its keys', function (): void {
    standIn($this);
    $this->get(throughProvider($this, $this->staff));
    ($this->out)();
    OpenIdKeys::load()->rotate();
    OpenIdKeys::load()->rotate();
    $this->travel(31)->seconds();
    $this->get(throughProvider($this, $this->staff));
    expect(auth()->id())->toBe($this->world->people['lead']);
});

it('believes no token that is not for here, from there, now, and signed by a key pair', function (
    Closure $forge,
): void {
    standIn($this);
    $this->get('/school-sign-on');
    $flow = session('single_sign_on');
    $key = OpenIdKeys::load()->newest();
    $claims = [
        'iss' => 'http://school.example/stand-in/openid',
        'sub' => 'x',
        'aud' => 'vantrel',
        'iat' => time(),
        'exp' => time() + 300,
        'nonce' => $flow['nonce'],
        'email' => $this->staff,
        'email_verified' => true,
    ];
    $token = $forge($claims, $key);
    Http::swap(new Illuminate\Http\Client\Factory());
    Http::fake([
        '*/keys' => Http::response(OpenIdKeys::load()->public()),
        '*/token' => Http::response(['id_token' => $token]),
        '*' => Http::response([]),
    ]);
    $this->get('/school-sign-on/back?code=c&state=' . $flow['state'])->assertRedirect('/');
    $this->assertGuest();
})->with([
    'another audience' => [
        fn(array $c, array $k): string => JWT::encode(['aud' => 'other'] + $c, $k['private'], 'RS256', $k['kid']),
    ],
    'another issuer' => [
        fn(array $c, array $k): string => JWT::encode(
            ['iss' => 'http://evil.example'] + $c,
            $k['private'],
            'RS256',
            $k['kid'],
        ),
    ],
    'another nonce' => [
        fn(array $c, array $k): string => JWT::encode(['nonce' => 'n'] + $c, $k['private'], 'RS256', $k['kid']),
    ],
    'over' => [
        fn(array $c, array $k): string => JWT::encode(['exp' => time() - 120] + $c, $k['private'], 'RS256', $k['kid']),
    ],
    'without an end' => [
        fn(array $c, array $k): string => JWT::encode(
            array_diff_key($c, ['exp' => 1]),
            $k['private'],
            'RS256',
            $k['kid'],
        ),
    ],
    'an address not verified' => [
        fn(array $c, array $k): string => JWT::encode(
            ['email_verified' => false] + $c,
            $k['private'],
            'RS256',
            $k['kid'],
        ),
    ],
    'a shared secret' => [fn(array $c, array $k): string => JWT::encode($c, str_repeat('s', 64), 'HS256', $k['kid'])],
    'no signature' => [
        fn(array $c, array $k): string => implode(
            '.',
            array_map(fn(string $p): string => rtrim(strtr(base64_encode($p), '+/', '-_'), '='), [
                '{"alg":"none","typ":"JWT"}',
                (string) json_encode($c),
            ]),
        ) . '.',
    ],
    'a key of its own' => [
        function (array $c, array $k): string {
            $pair = openssl_pkey_new(['private_key_bits' => 2048]);
            openssl_pkey_export($pair, $private);

            return JWT::encode($c, $private, 'RS256', $k['kid']);
        },
    ],
]);

it('has no stand-in where none is switched on, and no button without a provider', function (): void {
    config(['vantrel.stand_ins' => false, 'vantrel.openid.issuer' => '']);
    $this->get('/stand-in/openid/authorize')->assertStatus(404);
    $this->get('/stand-in/openid/keys')->assertStatus(404);
    $this->getJson('/api/entrance')->assertJson(['singleSignOn' => '']);
    $this->get('/school-sign-on')->assertRedirect('/');
});

it('takes staff for an address before a student who has typed it at the door', function (): void {
    standIn($this);
    $this->world->student('Sly Fox', null, ['email' => $this->staff]);
    $this->get(throughProvider($this, $this->staff))->assertRedirect('/');
    expect(auth()->id())->toBe($this->world->people['lead']);
});

it('says of the school’s sign-on what is wrong with it', function (Closure $answers, string $note): void {
    config(['vantrel.openid.issuer' => 'http://school.example/openid']);
    Cache::flush();
    Http::swap(new Illuminate\Http\Client\Factory());
    Http::fake(['*' => $answers]);
    $this->get('/school-sign-on')->assertRedirect('/');
    $this->getJson('/api/entrance')->assertJsonPath('note', $note);
})->with([
    'it does not answer' => [
        fn() => throw new Illuminate\Http\Client\ConnectionException('down'),
        'The school’s sign-on does not answer. Try again in a minute.',
    ],
    'it answers with an error' => [
        fn() => Http::response('no', 503),
        'The school’s sign-on did not let you in. Begin again.',
    ],
    'it is another' => [
        fn() => Http::response([
            'issuer' => 'http://evil.example',
            'authorization_endpoint' => 'http://evil.example/a',
        ]),
        'The school’s sign-on reports a different identity from the one configured here. Tell the coordinator.',
    ],
    'it has no such place' => [
        fn() => Http::response(['issuer' => 'http://school.example/openid']),
        'The school’s sign-on does not say where to go. Tell the coordinator.',
    ],
]);

it('lets nobody in by the school’s sign-on whose account is closed, and follows a merge', function (): void {
    standIn($this);
    $this->get(throughProvider($this, $this->staff));
    ($this->out)();
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['state' => 'left']);
    $this->get(throughProvider($this, $this->staff))->assertRedirect('/');
    $this->assertGuest();
    $this->getJson('/api/entrance')->assertJsonPath(
        'note',
        'This account is closed: its owner has left the school. Ask the school office.',
    );
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['state' => 'merged', 'merged_into' => $this->world->people['co_teacher']]);
    $this->get(throughProvider($this, $this->staff));
    expect(auth()->id())->toBe($this->world->people['co_teacher']);
});
