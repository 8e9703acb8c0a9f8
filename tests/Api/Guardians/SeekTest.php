<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section, ['birth_date' => '2017-05-04']);
    $this->seek = fn(array $wish = []) => $this->postJson('/api/family/seek', [
        'school' => $this->world->school,
        'child_given_name' => 'Noor',
        'child_family_name' => 'Haddad',
        'birth_date' => '2017-05-04',
        'given_name' => 'Layla',
        'family_name' => 'Haddad',
        'email' => 'Layla.Haddad@shoremail.example',
        ...$wish,
    ]);
    $this->listed = function (array $more = []): string {
        $id = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
            'email' => 'layla.haddad@shoremail.example',
            ...$more,
        ]);
        $this->world->insert('guardianships', [
            'student_id' => $this->noor,
            'guardian_id' => $id,
            'state' => 'listed',
        ]);

        return $id;
    };
    $this->claims = "/api/schools/{$this->world->school}/claims";
    $this->page = fn() => $this->actingAs($this->world->as('coordinator'))->getJson($this->claims)->assertOk();
});

it('answers everybody alike, whoever is at the school', function (): void {
    ($this->listed)();
    $here = ($this->seek)(['email' => 'somebody@shoremail.example']);
    $sent = ($this->seek)();
    $nobody = ($this->seek)(['child_given_name' => 'Zephyrine']);
    $otherDay = ($this->seek)(['birth_date' => '2017-05-05']);
    foreach ([$here, $sent, $nobody, $otherDay] as $answer) {
        expect([$answer->getStatusCode(), $answer->getContent()])->toBe([204, '']);
    }
    // The address on record alone got something, and nothing of the rest told who is there.
    expect(OutgoingMessage::query()->pluck('to_address')->all())->toBe(['layla.haddad@shoremail.example']);
});

it('keeps what was written once, for a coordinator to find the child', function (): void {
    ($this->seek)(['child_given_name' => 'Nour'])->assertNoContent();
    ($this->seek)(['child_given_name' => 'Nour'])->assertNoContent();
    $page = ($this->page)()->json();
    expect($page['claims'])
        ->toBe([])
        ->and($page['sought'])
        ->toHaveCount(1)
        ->and($page['sought'][0])
        ->toMatchArray(['name' => 'Layla Haddad', 'child' => 'Nour Haddad', 'childBorn' => '2017-05-04']);
    $sought = $page['sought'][0]['id'];
    $at = "/api/schools/{$this->world->school}/sought/$sought";
    $this->getJson($at)
        ->assertOk()
        ->assertJsonPath('students.0.id', $this->noor)
        ->assertJsonPath('students.0.fits', false);
    $desk = $this->getJson("/api/schools/{$this->world->school}/desk")->json();
    expect(json_encode($desk))->toContain('claims');

    $guardian = $this->world->people['guardian'];
    $this->postJson("$at/found", ['student' => $guardian])->assertStatus(422);
    $found = $this->postJson("$at/found", ['student' => $this->noor])->assertOk();
    expect($found->json('sought'))
        ->toBe([])
        ->and($found->json('claims.0'))
        ->toMatchArray(['name' => 'Layla Haddad', 'student' => 'Noor Haddad', 'state' => 'waiting']);
    $this->postJson("$at/found", ['student' => $this->noor])->assertStatus(422);
    $this->postJson("$at/refuse", ['reason' => 'An aunt'])->assertStatus(422);

    // Taken back, it waits again: nothing that somebody wrote is lost.
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->artisan("vantrel:undo $entry")->assertExitCode(0);
    expect(($this->page)()->json('sought.0.id'))
        ->toBe($sought)
        ->and(($this->page)()->json('claims'))
        ->toBe([]);
    $this->postJson("$at/refuse", ['reason' => 'An aunt'])
        ->assertOk()
        ->assertJsonPath('sought', []);
});

it('connects an account whose confirmed address is on record, and says no name to any other', function (): void {
    $guardian = ($this->listed)(['email_state' => 'confirmed']);
    $this->world->signIn($guardian, 'layla.haddad@shoremail.example');
    $account = App\Models\Person::query()->findOrFail($guardian);
    $own = fn(array $wish) => $this->postJson('/api/family/seek-own', [
        'school' => $this->world->school,
        'child_given_name' => 'Noor',
        'child_family_name' => 'Haddad',
        'birth_date' => '2017-05-04',
        ...$wish,
    ]);
    // Somebody else with an account reads what they wrote themselves, never the name on record.
    $this->actingAs($this->world->as('guardian'));
    $own(['child_given_name' => 'Nur'])
        ->assertOk()
        ->assertExactJson(['connected' => false]);
    expect($this->getJson('/api/home')->json('waiting'))->toBe(['Nur']);

    $this->actingAs($account);
    $own([])
        ->assertOk()
        ->assertExactJson(['connected' => true]);
    $own([])
        ->assertOk()
        ->assertExactJson(['connected' => true]);
    expect(DB::table('guardianships')->where('guardian_id', $guardian)->value('state'))->toBe('connected');
});

it('sends nothing to whoever is kept away, and lets the office see it', function (): void {
    $guardian = ($this->listed)();
    DB::table('guardianships')
        ->where('guardian_id', $guardian)
        ->update(['restriction' => 'By court order']);
    ($this->seek)()->assertNoContent();
    expect(OutgoingMessage::query()->count())
        ->toBe(0)
        ->and(($this->page)()->json('sought'))
        ->toHaveCount(1);
});

it('is no way to try names and days of birth', function (): void {
    for ($day = 0; $day < 60; $day++) {
        ($this->seek)(['birth_date' => sprintf('2017-05-%02d', ($day % 28) + 1)])->assertNoContent();
    }
    ($this->seek)()->assertStatus(429);
});

it('says what is missing, and at which place', function (): void {
    ($this->seek)(['email' => 'layla@'])
        ->assertStatus(422)
        ->assertJsonValidationErrors('email');
    ($this->seek)(['school' => $this->world->section])
        ->assertStatus(422)
        ->assertJsonValidationErrors('school');
    ($this->seek)(['birth_date' => '4.5.2017'])
        ->assertStatus(422)
        ->assertJsonValidationErrors('birth_date');
    ($this->seek)(['child_given_name' => ' ', 'child_family_name' => ' '])->assertStatus(422);
    $schools = $this->getJson('/api/family/schools')->assertOk()->json('schools');
    expect(array_column($schools, 'name'))
        ->toContain('Lanternfield Primary')
        ->and(array_keys($schools[0]))
        ->toBe(['id', 'name']);
});

it('turns all away alike once a school has had too many, whoever would have been found', function (): void {
    ($this->listed)();
    config(['vantrel.limits' => ['seek-at' => 2]]);
    ($this->seek)(['child_given_name' => 'Zoe'])->assertNoContent();
    ($this->seek)(['child_given_name' => 'Zoe'])->assertNoContent();
    ($this->seek)(['child_given_name' => 'Kit'])->assertStatus(429);
    ($this->seek)()->assertStatus(429);
    expect(OutgoingMessage::query()->count())->toBe(0);
});
