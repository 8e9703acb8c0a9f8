<?php

declare(strict_types=1);

namespace Tests\Support;

use Closure;
use Illuminate\Cookie\CookieValuePrefix;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;

/** One of several browsers in a test: its session goes on from request to request, and is nobody else's. */
final class Browser
{
    /** @var array<string, mixed> */
    private array $session = [];

    /** @var array<string, string> cookies beside the session's own */
    private array $cookies = [];

    public function __construct(private readonly TestCase $test) {}

    /** @param  array<string, mixed>  $body */
    public function post(string $uri, array $body = []): TestResponse
    {
        return $this->within(fn(): TestResponse => $this->test->postJson($uri, $body));
    }

    public function get(string $uri): TestResponse
    {
        return $this->within(
            fn(): TestResponse => str_starts_with($uri, '/api/') ? $this->test->getJson($uri) : $this->test->get($uri),
        );
    }

    public function delete(string $uri): TestResponse
    {
        return $this->within(fn(): TestResponse => $this->test->deleteJson($uri));
    }

    public function signIn(string $user, string $secret): TestResponse
    {
        return $this->post('/api/sign-in', ['user_name' => $user, 'secret' => $secret]);
    }

    /** Who is signed in, by id; null for nobody. */
    public function who(): ?string
    {
        $me = $this->get('/api/me');

        return $me->isOk() ? $me->json('id') : null;
    }

    /** @return array<string, mixed> */
    public function session(): array
    {
        return $this->session;
    }

    /** @param  Closure(): TestResponse  $work */
    private function within(Closure $work): TestResponse
    {
        $store = app('session')->driver();
        $store->flush();
        $store->setId(Str::random(40));
        app('auth')->forgetGuards();
        app('cookie')->flushQueuedCookies();
        $this->test->withSession($this->session);
        foreach ($this->cookies as $name => $value) {
            $this->test->withCookie($name, $value);
        }
        $this->test->withCredentials();
        $response = $work();
        $this->session = $store->all();
        foreach ($response->headers->getCookies() as $cookie) {
            if ($cookie->getName() === 'vantrel_device') {
                $this->cookies[$cookie->getName()] = CookieValuePrefix::remove(
                    app('encrypter')->decrypt((string) $cookie->getValue(), false),
                );
            }
        }
        $store->flush();
        app('auth')->forgetGuards();
        $this->test->withCookies(array_fill_keys(array_keys($this->cookies), ''));

        return $response;
    }
}
