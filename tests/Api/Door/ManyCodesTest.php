<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\Browser;
use Tests\Support\Tries;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;

// Many wrong codes came that day: a guess is worth nothing then, and nobody is shut out.

beforeEach(function (): void {
    readyForAttacks($this);
    $this->wrong = CodeSymbols::fromPayload('TTRWXK')->symbols;
    $this->asks = fn(Browser $by, string $code) => $by->post('/api/join/ask', [
        'code' => $code,
        'given_name' => 'Zebulon',
        'family_name' => 'Fitch',
        'birth_date' => '2018-07-07',
        'password' => 'green boat stone',
    ]);
});

it('answers a right code and a wrong one alike, whatever is asked', function (Limit $limit, string $whom): void {
    Tries::have($limit, $whom, $limit->most());
    $right = ($this->browser)();
    $wrong = ($this->browser)();
    foreach (
        [
            fn(Browser $by, string $code) => $by->post('/api/join/door', ['code' => $code]),
            fn(Browser $by, string $code) => $by->post('/api/join/names', [
                'code' => $code,
                'given_name' => 'Wilhelmina',
                'family_name' => 'Seabright',
            ]),
            fn(Browser $by, string $code) => $by->post('/api/join/claim', [
                'code' => $code,
                'given_name' => 'Wilhelmina',
                'family_name' => 'Seabright',
                'key' => 'x',
                'proof' => '2018-02-11',
                'password' => 'green boat stone',
            ]),
            $this->asks,
            fn(Browser $by, string $code) => $by->post('/api/join/asked'),
        ]
        as $ask
    ) {
        $one = $ask($right, $this->world->code);
        $other = $ask($wrong, $this->wrong);
        expect([$one->getStatusCode(), $one->json()])->toBe([$other->getStatusCode(), $other->json()]);
    }
    // The right one waits for somebody, who is told why; the other for nobody.
    expect(DB::table('join_requests')->pluck('cause', 'state')->all())->toBe(['waiting' => 'many_codes']);
    ($this->approve)('lead', null);
    $right->post('/api/join/asked')->assertJson(['state' => 'approved', 'section' => '3 Heron']);
    expect($right->who())->not->toBeNull();
    $wrong->post('/api/join/asked')->assertJson(['state' => 'waiting']);
})->with([[Limit::CodeAddress, '127.0.0.1'], [Limit::CodeInstallation, '']]);

it('lets a student with an account in, who has not guessed', function (): void {
    Tries::have(Limit::CodeAddress, '127.0.0.1', 5000);
    $student = $this->world->student('Noor Haddad');
    $this->actingAs(App\Models\Person::query()->findOrFail($student));
    foreach (range(1, 3) as $i) {
        $this->postJson('/api/join', ['code' => $this->wrong])->assertStatus(422);
    }
    $this->postJson('/api/join', ['code' => $this->world->code])->assertStatus(429);
    ($this->as)('student')
        ->postJson('/api/join', ['code' => $this->world->code])
        ->assertOk();
});

it('says of what cannot be a code what is wrong with it, as ever, and counts it for nobody', function (): void {
    $this->postJson('/api/join/door', ['code' => 'KDM4X7K'])->assertStatus(422);
    expect(DB::table('tries')->count())->toBe(0);
    Tries::have(Limit::CodeAddress, '127.0.0.1', 20);
    $this->postJson('/api/join/door', ['code' => 'KDM4X7K'])->assertStatus(422);
});

it('gives a guess the chance that the sum says', function (): void {
    // So many codes that a thousandth of all guesses hits one: then the figure tells.
    $random = new KeyedStream(str_repeat('g', 32), 'codes');
    $codes = [];
    while (count($codes) < 150_000) {
        $codes[CodeSymbols::draw($random, 6)->symbols] = true;
    }
    $tries = 200_000;
    $hits = 0;
    for ($i = 0; $i < $tries; $i++) {
        $hits += isset($codes[CodeSymbols::draw($random, 6)->symbols]) ? 1 : 0;
    }
    $expected = ($tries * 150_000) / 23 ** 6;
    // What 490 codes give whoever guesses as often as lets in without a look.
    $each = 490 / 23 ** 6;
    expect(abs($hits - $expected))
        ->toBeLessThan(5 * sqrt($expected))
        ->and($each * Limit::CodeAddress->most())
        ->toBeLessThan(0.0001)
        ->and($each * Limit::CodeInstallation->most())
        ->toBeLessThan(0.001);
});
