<?php

declare(strict_types=1);

use App\Platform\BodySize;
use App\Platform\Wishes;
use Tests\Support\Tries;
use Vantrel\Core\Accounts\Limit;

// What a request costs is bounded before work begins: its bytes, its entries, how many there are of them.

beforeEach(fn() => readyForAttacks($this));

it('reads no body that is larger than anything meant', function (): void {
    $this->postJson('/api/room/enter', ['token' => str_repeat('x', BodySize::MOST_OF_A_GUEST)])
        ->assertStatus(413)
        ->assertJsonPath('detail', 'That is more than is asked for here: 20,000 bytes at most.');
    ($this->as)('student')
        ->postJson('/api/home/seen', ['ids' => [str_repeat('x', BodySize::MOST)]])
        ->assertStatus(413);
    $this->postJson('/api/home/seen', ['ids' => array_fill(0, BodySize::MOST_PARTS + 2, 0)])->assertStatus(413);
});

it('looks at no entry of a list that has too many, and at none after the first that is wrong', function (): void {
    ($this->as)('student');
    $name = Wishes::parts(App\Home\Http\Wishes\SeenWish::class)[0]->name;
    $many = $this->postJson('/api/home/seen', [$name => array_fill(0, 30_000, 'x')])->assertStatus(422);
    expect(array_keys($many->json('errors')))->toBe([$name]);
    $wrong = $this->postJson('/api/home/seen', [$name => [ulid(), 'x', 'y']])->assertStatus(422);
    expect(array_keys($wrong->json('errors')))->toBe(["$name.1"]);
});

it('says of every list in every wish how many it holds and what each entry is', function (): void {
    $without = [];
    foreach (glob(base_path('app/*/{Http/,}Wishes/*.php'), GLOB_BRACE) ?: [] as $file) {
        $wish = 'App\\' . str_replace(['/', '.php'], ['\\', ''], substr($file, strlen(base_path('app/'))));
        foreach (Wishes::parts($wish) as $part) {
            [$rules] = array_values($part->rules());
            $bounded = array_filter($rules, fn(mixed $r): bool => is_string($r) && str_starts_with($r, 'max:'));
            if (in_array('array', $rules, true) && ($bounded === [] || $part->each() === [])) {
                $without[] = "$wish: $part->name";
            }
        }
    }
    expect($without)->toBe([]);
});

it('turns away an account that floods, and no other', function (): void {
    Tries::have(Limit::Requests, $this->world->people['student'], 1200);
    ($this->as)('student')->getJson('/api/me')->assertStatus(429)->assertHeader('Retry-After');
    ($this->as)('lead')->getJson('/api/me')->assertOk();
});

it('lets a key of the rosters in, however many wrong ones came from its address', function (): void {
    $made = ($this->as)('coordinator')
        ->postJson("/api/schools/{$this->world->school}/roster-keys", ['name' => 'Library', 'scopes' => ['core']])
        ->assertOk()
        ->json();
    auth()->logout();
    Tries::have(Limit::CardAddress, 'roster 127.0.0.1', 300);
    $ask = fn(string $secret) => $this->post(
        '/ims/oneroster/token',
        ['grant_type' => 'client_credentials'],
        ['Authorization' => 'Basic ' . base64_encode("{$made['made']}:$secret")],
    );
    $ask('wrong')->assertStatus(429);
    $ask((string) $made['secret'])->assertOk();
});
