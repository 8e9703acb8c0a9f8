<?php

declare(strict_types=1);

use App\StandIns\OpenIdKeys;
use Firebase\JWT\JWT;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Tests\Support\Browser;
use Tests\Support\World;

// 3 and 5. Single sign-on and addresses.

/** The provider's answer, with the claims of whoever attacks. */
function claims(object $test, Browser $by, array $claims): void
{
    config([
        'vantrel.stand_ins' => true,
        'vantrel.openid.issuer' => 'http://school.example/stand-in/openid',
        'vantrel.openid.client_secret' => 'a secret',
        'app.url' => 'http://school.example',
    ]);
    Cache::flush();
    $key = OpenIdKeys::load()->newest();
    Http::swap(new Illuminate\Http\Client\Factory());
    $token = '';
    Http::fake(function ($request) use (&$token) {
        return match (true) {
            str_contains($request->url(), 'openid-configuration') => Http::response([
                'issuer' => 'http://school.example/stand-in/openid',
                'authorization_endpoint' => 'http://school.example/a',
                'token_endpoint' => 'http://school.example/token',
                'jwks_uri' => 'http://school.example/keys',
            ]),
            str_contains($request->url(), '/keys') => Http::response(OpenIdKeys::load()->public()),
            default => Http::response(['id_token' => $token]),
        };
    });
    $by->get('/school-sign-on');
    $flow = $by->session()['single_sign_on'];
    $token = JWT::encode(
        [
            'iss' => 'http://school.example/stand-in/openid',
            'aud' => 'vantrel',
            'iat' => time(),
            'exp' => time() + 300,
            'nonce' => $flow['nonce'],
            'email_verified' => true,
            ...$claims,
        ],
        $key['private'],
        'RS256',
        $key['kid'],
    );
    $by->get('/school-sign-on/back?code=c&state=' . $flow['state'])->assertRedirect('/');
}

/** What every test of them begins with. */
function readyForAttacks(object $test): void
{
    $test->world = World::make();
    $test->section = $test->world->section;
    $test->lead = 'petra.okonjo@lanternfield.example';
    $test->password = 'lantern harbor morning';
    $test->as = fn(string $role) => $test->actingAs($test->world->as($role));
    $test->browser = fn(): Browser => new Browser($test);
    $test->ask = fn(Browser $by, array $more = []) => $by->post('/api/join/ask', [
        'code' => $test->world->code,
        'given_name' => 'Wilhelmina',
        'family_name' => 'Seabright',
        'birth_date' => '2018-07-07',
        'password' => 'green boat stone',
        ...$more,
    ]);
    $test->approve = function (string $role, ?string $as) use ($test): void {
        $id = DB::table('join_requests')->orderByDesc('id')->value('id');
        ($test
            ->as)($role)
            ->postJson("/api/sections/$test->section/requests/$id/approve", $as === null ? [] : ['as' => $as])
            ->assertOk();
        auth()->logout();
        app('auth')->forgetGuards();
        $test->flushSession();
    };
    $test->undo = function (string $action) use ($test): void {
        $entry = DB::table('ledger_entries')->where('action', $action)->orderByDesc('seq')->value('id');
        ($test
            ->as)('coordinator')
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk();
        auth()->logout();
        app('auth')->forgetGuards();
        $test->flushSession();
    };
    $test->csv = fn(string $role, string $csv, ?string $school = null): array => ($test
        ->as)($role)
        ->post(
            '/api/schools/' . ($school ?? $test->world->school) . '/intakes',
            ['files' => [UploadedFile::fake()->createWithContent('list.csv', $csv)]],
            ['Accept' => 'application/json'],
        )
        ->assertOk()
        ->json();
    $test->show = fn(string $id): array => $test
        ->getJson("/api/intakes/$id")
        ->assertOk()
        ->json();
    $test->apply = fn(string $id) => $test->postJson("/api/intakes/$id/apply", [
        'fingerprint' => ($test->show)($id)['fingerprint'],
        'password' => $test->password,
    ]);
}
