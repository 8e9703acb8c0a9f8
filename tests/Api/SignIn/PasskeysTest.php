<?php

declare(strict_types=1);

use App\Accounts\Passkeys;
use Illuminate\Support\Facades\DB;
use Tests\Support\Authenticator;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Accounts\Totp;

beforeEach(function (): void {
    readyToSignIn($this);
    config(['app.url' => 'http://localhost']);
    $this->device = new Authenticator();
    $this->lead = $this->world->people['lead'];
    $this->add = fn(Authenticator $device, string $name = '') => $this->postJson('/api/passkeys', [
        ...$device->make($this->postJson('/api/passkeys/ask')->assertOk()->json('question')),
        ...$name === '' ? [] : ['name' => $name],
    ]);
    $this->show = fn(Authenticator $device) => $this->postJson(
        '/api/sign-in/passkey',
        $device->show($this->postJson('/api/sign-in/passkey/ask')->assertOk()->json('question')),
    );
    $this->begin = function (): array {
        ($this->signIn)($this->staff, $this->password)->assertOk()->assertJsonPath('needs', '');
        $recovery = ($this->add)($this->device, 'My laptop')->assertOk()->assertJsonCount(10, 'recovery');
        ($this->out)();

        return $recovery->json('recovery');
    };
});

it('signs in with a passkey instead of a password, and with one after it', function (): void {
    $recovery = ($this->begin)();
    ($this->show)($this->device)->assertOk()->assertJsonPath('name', 'Petra Okonjo');
    $this->getJson('/api/passkeys')
        ->assertJsonPath('passkeys.0.name', 'My laptop')
        ->assertJsonPath('address', 'http://localhost')
        ->assertJsonPath('recovery', []);
    expect($this->getJson('/api/passkeys')->json('passkeys.0.lastUsed'))->not->toBeNull();
    $this->getJson('/api/second-factor')->assertJson(['on' => true, 'app' => false, 'recoveryLeft' => 10]);
    ($this->out)();

    // The password alone lets nobody in any more.
    ($this->signIn)($this->staff, $this->password)
        ->assertOk()
        ->assertJson(['me' => null, 'needs' => 'second_factor', 'passkey' => true]);
    $this->getJson('/api/me')->assertStatus(401);
    $this->getJson('/api/entrance')->assertJson(['secondFactor' => true, 'passkey' => true]);
    ($this->show)($this->device)->assertOk();
    ($this->out)();

    ($this->signIn)($this->staff, $this->password);
    $this->postJson('/api/sign-in/code', ['code' => '123456'])->assertStatus(422);
    $this->postJson('/api/sign-in/code', ['code' => $recovery[0]])->assertOk();
});

it('answers each question once, within its time, to the browser that was asked', function (): void {
    ($this->begin)();
    $question = $this->postJson('/api/sign-in/passkey/ask')->json('question');
    $answer = $this->device->show($question);
    $this->postJson('/api/sign-in/passkey', $answer)->assertOk();
    ($this->out)();
    $this->postJson('/api/sign-in/passkey', $answer)
        ->assertStatus(422)
        ->assertJsonPath('detail', 'That took too long. Try again.');
    $answer = $this->device->show($this->postJson('/api/sign-in/passkey/ask')->json('question'));
    $this->travel(301)->seconds();
    $this->postJson('/api/sign-in/passkey', $answer)->assertStatus(422);
    $answer = $this->device->show($this->postJson('/api/sign-in/passkey/ask')->json('question'));
    $this->flushSession();
    $this->postJson('/api/sign-in/passkey', $answer)->assertStatus(422);
    $this->getJson('/api/me')->assertStatus(401);
});

it('tells somebody without a password nothing of whose passkeys there are', function (): void {
    ($this->begin)();
    $this->postJson('/api/sign-in/passkey/ask')->assertOk()->assertJsonPath('credentials', []);
    // A device nobody has, and one whose key is not the one that was kept: in one sentence.
    $said = ($this->show)(new Authenticator())->assertStatus(422)->json('detail');
    $other = new Authenticator();
    $other->id = $this->device->id;
    ($this->show)($other)->assertStatus(422)->assertJsonPath('detail', $said);
});

it('takes the password again to add or end one, some time after the sign-in', function (): void {
    ($this->signIn)($this->staff, $this->password);
    $this->travel(Lifetime::JustSignedIn->value + 1)->seconds();
    $this->postJson('/api/passkeys/ask')->assertStatus(422)->assertJsonValidationErrors('current');
    // Without a question that was asked, nothing is kept.
    $this->postJson('/api/passkeys', $this->device->make('AAAA'))->assertStatus(422);
    $question = $this->postJson('/api/passkeys/ask', ['current' => $this->password])
        ->assertOk()
        ->json('question');
    $this->postJson('/api/passkeys', $this->device->make($question))
        ->assertOk()
        ->assertJsonPath('passkeys.0.name', 'a device');
    $id = DB::table('passkeys')->value('id');
    $this->postJson("/api/passkeys/$id/end")
        ->assertStatus(422)
        ->assertJsonValidationErrors('current');
    $this->postJson("/api/passkeys/$id/end", ['current' => $this->password])
        ->assertOk()
        ->assertJsonPath('passkeys', []);
    // Recovery codes by themselves are no second factor.
    expect(DB::table('second_factors')->count())->toBe(0);
    expect(
        DB::table('outgoing_messages')
            ->whereIn('subject', ['A passkey was added', 'A passkey was removed'])
            ->count(),
    )->toBe(2);
});

it('keeps what a school asks for: the last passkey stays until there is another second factor', function (): void {
    ($this->rules)(['second_factor' => 'staff']);
    ($this->signIn)($this->staff, $this->password)->assertJsonPath('me.must', 'second_factor');
    $this->getJson('/api/schools/' . $this->world->school . '/desk')->assertStatus(403);
    ($this->add)($this->device)->assertOk();
    $this->getJson('/api/me')->assertJsonPath('must', '');
    $id = DB::table('passkeys')->value('id');
    $this->postJson("/api/passkeys/$id/end")->assertStatus(422);
    $totp = Totp::fromBase32($this->postJson('/api/second-factor')->assertOk()->json('secret'));
    // Not before the app has shown a code: what is only begun is none.
    $this->postJson("/api/passkeys/$id/end")->assertStatus(422);
    $this->postJson('/api/second-factor/confirm', ['code' => $totp->at(now()->getTimestamp())])
        ->assertOk()
        ->assertJson(['on' => true, 'app' => true, 'recovery' => [], 'recoveryLeft' => 10]);
    // The app goes while there is a passkey, and then the passkey stays.
    $this->travel(31)->seconds();
    $this->deleteJson('/api/second-factor', ['code' => $totp->at(now()->getTimestamp())])->assertNoContent();
    $this->getJson('/api/second-factor')->assertJson(['on' => true, 'app' => false]);
    $this->postJson("/api/passkeys/$id/end")->assertStatus(422);
});

it('ends a passkey with the sessions it opened, by the school, by all ends, and by an erasure', function (): void {
    ($this->begin)();
    ($this->show)($this->device)->assertOk();
    Passkeys::endAll($this->lead);
    $this->getJson('/api/me')->assertStatus(401);

    ($this->begin)();
    $id = DB::table('passkeys')->value('id');
    $as = $this->actingAs($this->world->as('coordinator'));
    $as->getJson("/api/people/$this->lead/credentials")
        ->assertOk()
        ->assertJsonFragment(['kind' => 'passkey', 'id' => $id, 'what' => 'My laptop']);
    // Without it a password alone would let somebody in: whoever ends it shows who they are.
    $as->postJson("/api/people/$this->lead/credentials/end", ['kind' => 'passkey', 'id' => $id])
        ->assertStatus(422)
        ->assertJsonValidationErrors('password');
    $as->postJson("/api/people/$this->lead/credentials/end", [
        'kind' => 'passkey',
        'id' => $id,
        'password' => $this->password,
    ])
        ->assertOk()
        ->assertJsonPath('said', 'The passkey “My laptop” of Petra Okonjo is ended, and every open session.');
    expect(DB::table('passkeys')->count())
        ->toBe(0)
        ->and(DB::table('second_factors')->count())
        ->toBe(0);
    $this->app['auth']->forgetGuards();
    $this->flushSession();
    ($this->show)($this->device)->assertStatus(422);

    ($this->begin)();
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/people/$this->lead/credentials/end-all")
        ->assertOk();
    expect(DB::table('passkeys')->count())->toBe(0);
});

it('gives nobody the passkeys of another', function (): void {
    ($this->begin)();
    $id = DB::table('passkeys')->value('id');
    $this->actingAs($this->world->as('co_teacher'));
    $this->getJson('/api/passkeys')->assertJsonPath('passkeys', []);
    $this->withSession([
        'opened_by' => ['way' => 'password', 'id' => '', 'stamp' => '', 'factor' => true, 'at' => time()],
    ])
        ->postJson("/api/passkeys/$id/end")
        ->assertStatus(404);
    expect(DB::table('passkeys')->count())->toBe(1);
});

it('makes none where browsers make none, and says so', function (): void {
    config(['app.url' => 'http://roll.lanternfield.example']);
    ($this->signIn)($this->staff, $this->password);
    $this->getJson('/api/passkeys')->assertOk()->assertJsonPath('address', '');
    $this->postJson('/api/passkeys/ask')->assertStatus(422);
});

it('keeps ten of one person and each of one device once', function (): void {
    ($this->signIn)($this->staff, $this->password);
    ($this->add)($this->device)->assertOk();
    ($this->add)($this->device)->assertStatus(422)->assertJsonPath('detail', 'This passkey is kept already.');
    for ($i = 1; $i < 10; $i++) {
        ($this->add)(new Authenticator())->assertOk();
    }
    ($this->add)(new Authenticator())->assertStatus(422);
    expect(DB::table('passkeys')->count())->toBe(10);
});
