<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use App\PrintRoom\FamilyCodes;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Codes\CodeSymbols;

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section);
    $this->letter = function (string $student, string $payload = 'KDM4X7RTB'): string {
        $code = CodeSymbols::fromPayload($payload);
        $this->world->insert('family_letters', [
            'student_id' => $student,
            'language' => 'en',
            'token_hash' => FamilyCodes::hash($code),
            'state' => 'live',
            'slip' => strtoupper(Str::random(7)),
            'made_at' => now(),
        ]);

        return $code->written();
    };
    $this->code = ($this->letter)($this->noor);
    $this->ask = fn(array $wish = []) => $this->postJson('/api/family/ask', [
        'code' => $this->code,
        'given_name' => 'Layla',
        'family_name' => 'Haddad',
        'email' => 'Layla.Haddad@shoremail.example',
        ...$wish,
    ]);
    $this->claims = "/api/schools/{$this->world->school}/claims";
    $this->answer = fn(string $what, array $body = []) => $this->actingAs($this->world->as('coordinator'))->postJson(
        "$this->claims/" . DB::table('guardian_claims')->where('state', 'waiting')->value('id') . "/$what",
        $body,
    );
});

it('shows whoever holds a letter the school and the given name, and no more', function (): void {
    $answer = $this->postJson('/api/family/check', ['code' => strtolower($this->code)])->assertOk();
    expect($answer->json())->toBe(['school' => 'Lanternfield Primary', 'student' => 'Noor']);
    $this->postJson('/api/family/check', ['code' => 'KDM-4X7R'])->assertStatus(422);
    $unknown = CodeSymbols::fromPayload('KKKKKKKKK')->written();
    $this->postJson('/api/family/check', ['code' => $unknown])
        ->assertStatus(422)
        ->assertJsonPath('errors.code.0', fn(string $said): bool => str_contains($said, 'another letter'));
    DB::table('people')
        ->where('id', $this->noor)
        ->update(['state' => 'left']);
    $this->postJson('/api/family/check', ['code' => $this->code])->assertStatus(422);
});

it('opens no account for what somebody types: the school checks, then a link goes out by mail', function (): void {
    ($this->ask)()->assertNoContent();
    expect(DB::table('sign_ins')->where('user_name', 'like', '%haddad@shoremail%')->exists())
        ->toBeFalse()
        ->and(OutgoingMessage::query()->count())
        ->toBe(0);
    // Asked again, it waits already; a stranger is not told so.
    ($this->ask)()->assertNoContent();
    $page = $this->actingAs($this->world->as('coordinator'))->getJson($this->claims)->assertOk()->json('claims');
    expect($page)
        ->toHaveCount(1)
        ->and($page[0])
        ->toMatchArray([
            'name' => 'Layla Haddad',
            'student' => 'Noor Haddad',
            'suggested' => null,
            'signedIn' => false,
        ]);
    $counts = $this->getJson("/api/schools/{$this->world->school}/desk")->json();
    expect(json_encode($counts))->toContain('claims');
    ($this->answer)('approve')
        ->assertOk()
        ->assertJsonPath('said', fn(string $said): bool => str_contains($said, 'A link'));
    $mail = OutgoingMessage::query()->sole();
    expect($mail->to_address)->toBe('layla.haddad@shoremail.example');
    // The link sets a password, and then the child is there and no other.
    preg_match('~/new-password#(\S+)~', (string) $mail->text, $link);
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/new-password', [
        'token' => $link[1],
        'password' => 'four green boats at sea',
    ])->assertNoContent();
    $this->postJson('/api/sign-in', [
        'user_name' => 'layla.haddad@shoremail.example',
        'secret' => 'four green boats at sea',
    ])->assertOk();
    expect($this->getJson('/api/home')->json('students'))->toHaveCount(1);
    $this->getJson('/api/home')->assertJsonPath('students.0.givenName', 'Noor');
});

it('takes a guardian on record for what they are, when they are chosen', function (): void {
    $listed = $this->world->insert('people', [
        'school_id' => $this->world->school,
        'kind' => 'guardian',
        'given_name' => 'Layla',
        'family_name' => 'Haddad',
        'search_name' => 'layla haddad',
        'email' => 'old@shoremail.example',
        'state' => 'active',
    ]);
    $this->world->insert('guardianships', [
        'student_id' => $this->noor,
        'guardian_id' => $listed,
        'state' => 'listed',
    ]);
    ($this->ask)()->assertNoContent();
    $line = $this->actingAs($this->world->as('coordinator'))->getJson($this->claims)->json('claims.0');
    expect($line['suggested'])
        ->toBe($listed)
        ->and($line['record'][0]['alike'])
        ->toBe(['name']);
    ($this->answer)('approve', ['guardian' => $this->world->people['guardian']])->assertStatus(422);
    ($this->answer)('approve', ['guardian' => $listed])->assertOk();
    expect(DB::table('guardianships')->where('guardian_id', $listed)->value('state'))
        ->toBe('connected')
        ->and(DB::table('people')->where('id', $listed)->value('email'))
        ->toBe('layla.haddad@shoremail.example')
        ->and(DB::table('people')->where('kind', 'guardian')->where('family_name', 'Haddad')->count())
        ->toBe(1);
    // Undone, all is as it was, and they can ask again.
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(DB::table('guardianships')->where('guardian_id', $listed)->value('state'))
        ->toBe('listed')
        ->and(DB::table('guardian_claims')->value('state'))
        ->toBe('waiting');
});

it('connects a further child with the account somebody has, and tells nobody twice', function (): void {
    $this->actingAs($this->world->as('guardian'))
        ->postJson('/api/family/connect', ['code' => $this->code])
        ->assertJsonPath('connected', false);
    ($this->answer)('approve')->assertOk();
    expect(OutgoingMessage::query()->count())->toBe(0);
    $this->actingAs($this->world->as('guardian'));
    expect(array_column($this->getJson('/api/home')->json('students'), 'givenName'))->toContain('Noor');
    $this->postJson('/api/family/connect', ['code' => $this->code])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This child is already connected to you.');
});

it('turns down with a reason that stands in the ledger, once', function (): void {
    ($this->ask)()->assertNoContent();
    $id = DB::table('guardian_claims')->value('id');
    ($this->answer)('refuse', ['reason' => 'An aunt, says the office.'])->assertOk();
    $this->postJson("$this->claims/$id/approve")->assertStatus(422);
    expect(DB::table('guardianships')->where('student_id', $this->noor)->count())->toBe(0);
    $this->actingAs($this->world->as('other coordinator'))
        ->postJson("/api/schools/{$this->world->otherSchool}/claims/$id/approve")
        ->assertNotFound();
});

it('lets nobody bury the office in requests, nor take an address that signs in', function (): void {
    foreach (['a', 'b', 'c', 'd'] as $i) {
        ($this->ask)(['email' => "$i@shoremail.example"])->assertNoContent();
    }
    ($this->ask)(['email' => 'e@shoremail.example'])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_starts_with($said, 'Several requests'));
    DB::table('guardian_claims')->delete();
    $taken = (string) DB::table('sign_ins')->where('person_id', $this->world->people['lead'])->value('user_name');
    ($this->ask)(['email' => $taken])->assertNoContent();
    ($this->answer)('approve')
        ->assertStatus(422)
        ->assertJsonPath('errors.guardian.0', fn(string $said): bool => str_contains($said, 'already'));
    ($this->ask)(['email' => 'no address'])
        ->assertStatus(422)
        ->assertJsonValidationErrors('email');
    ($this->ask)(['phone' => '12'])
        ->assertStatus(422)
        ->assertJsonValidationErrors('phone');
});

it('forgets who was turned down, after as long as the school keeps requests', function (): void {
    ($this->ask)()->assertNoContent();
    ($this->answer)('refuse', ['reason' => 'An aunt, says the office.'])->assertOk();
    expect(Artisan::call('vantrel:clean-up'))
        ->toBe(0)
        ->and(DB::table('guardian_claims')->count())
        ->toBe(1);
    DB::table('guardian_claims')->update(['answered_at' => now()->subYears(3)]);
    expect(Artisan::call('vantrel:clean-up'))
        ->toBe(0)
        ->and(DB::table('guardian_claims')->count())
        ->toBe(0);
});

it('asks from accounts without an address each for themselves', function (): void {
    foreach (['guardian', 'lead'] as $role) {
        DB::table('people')
            ->where('id', $this->world->people[$role])
            ->update(['email' => null]);
        $this->app['auth']->forgetGuards();
        $this->actingAs($this->world->as($role))
            ->postJson('/api/family/connect', ['code' => $this->code])
            ->assertJsonPath('connected', false);
        $this->postJson('/api/family/connect', ['code' => $this->code])->assertStatus(422);
    }
    expect(DB::table('guardian_claims')->count())->toBe(2);
});

it('shows the guardians of the student that a student was merged into', function (): void {
    ($this->ask)()->assertNoContent();
    $stays = $this->world->student('Noor Haddad', $this->world->section);
    $this->world->insert('guardianships', [
        'student_id' => $stays,
        'guardian_id' => $this->world->people['guardian'],
        'state' => 'listed',
    ]);
    DB::table('people')
        ->where('id', $this->noor)
        ->update(['state' => 'merged', 'merged_into' => $stays]);
    $line = $this->actingAs($this->world->as('coordinator'))->getJson($this->claims)->json('claims.0');
    expect(array_column($line['record'], 'id'))->toBe([$this->world->people['guardian']]);
    ($this->answer)('approve', ['guardian' => $this->world->people['guardian']])->assertOk();
    expect(DB::table('guardianships')->where('student_id', $stays)->value('state'))->toBe('connected');
});

it('sends a link to the address on record, not to whoever types it, and a few times at most', function (): void {
    $layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'layla.haddad@shoremail.example',
    ]);
    $this->world->insert('guardianships', ['student_id' => $this->noor, 'guardian_id' => $layla, 'state' => 'listed']);
    foreach (range(1, 8) as $_) {
        ($this->ask)()->assertNoContent();
    }
    expect(OutgoingMessage::query()->pluck('to_address')->unique()->all())
        ->toBe(['layla.haddad@shoremail.example'])
        ->and(OutgoingMessage::query()->count())
        ->toBe(5)
        ->and(DB::table('guardian_claims')->count())
        ->toBe(0)
        ->and(DB::table('guardianships')->where('guardian_id', $layla)->value('state'))
        ->toBe('invited');
    // Another name with the same address waits for a person of the school.
    ($this->ask)(['given_name' => 'Samira'])->assertNoContent();
    expect(DB::table('guardian_claims')->count())->toBe(1);
});
