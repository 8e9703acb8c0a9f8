<?php

declare(strict_types=1);

use Illuminate\Http\Client\Request as HttpRequest;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Tests\Support\World;

/** The application's own stand-in answers what single sign-on asks over HTTP. */
function standIn(object $test): void
{
    config([
        'vantrel.stand_ins' => true,
        'vantrel.openid.issuer' => 'http://school.example/stand-in/openid',
        'vantrel.openid.client_secret' => 'a secret',
        'app.url' => 'http://school.example',
    ]);
    Cache::flush();
    Http::fake(function (HttpRequest $request) {
        $path = (string) parse_url($request->url(), PHP_URL_PATH);
        $headers = ['HTTP_AUTHORIZATION' => $request->header('Authorization')[0] ?? ''];
        [$user, $password] = explode(':', (string) base64_decode(substr($headers['HTTP_AUTHORIZATION'], 6)), 2) + [
            1 => '',
        ];
        parse_str($request->body(), $form);
        $inner = Illuminate\Http\Request::create(
            $path,
            $request->method(),
            $form,
            [],
            [],
            ['PHP_AUTH_USER' => $user, 'PHP_AUTH_PW' => $password],
        );
        $outer = app('request');
        app()->instance('request', $inner);
        $response = app(Illuminate\Routing\Router::class)->dispatch($inner);
        app()->instance('request', $outer);

        return Http::response((string) $response->getContent(), $response->getStatusCode(), [
            'Content-Type' => 'application/json',
        ]);
    });
}

/** Goes to the provider as somebody, and gives the address to come back to. */
function throughProvider(object $test, string $as): string
{
    $there = (string) $test->get('/school-sign-on')->assertRedirect()->headers->get('Location');
    parse_str((string) parse_url($there, PHP_URL_QUERY), $asked);
    expect($asked)
        ->toHaveKeys(['state', 'nonce', 'code_challenge'])
        ->and($asked['code_challenge_method'])
        ->toBe('S256');

    return (string) $test
        ->get('/stand-in/openid/authorize?' . http_build_query([...$asked, 'as' => $as]))
        ->assertRedirect()
        ->headers->get('Location');
}

/** What every test of them begins with. */
function readyToSignIn(object $test): void
{
    $test->world = World::make();
    $test->out = function () use ($test): void {
        auth()->logout();
        $test->flushSession();
        app('auth')->forgetGuards();
    };
    $test->signIn = fn(string $user, string $secret, array $more = []) => $test->postJson('/api/sign-in', [
        'user_name' => $user,
        'secret' => $secret,
        ...$more,
    ]);
    $test->staff = 'petra.okonjo@lanternfield.example';
    $test->password = 'lantern harbor morning';
    $test->rules = fn(array $rules) => DB::table('schools')->where('id', $test->world->school)->update($rules);
}
