<?php

declare(strict_types=1);

use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->otherSection, [
        'number' => '020417',
        'email' => 'noor@lanternfield.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
        'birth_date' => '2012-05-01',
    ]);
    $this->layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'layla@shoremail.example',
        'language' => 'es',
    ]);
    $this->tie = $this->world->insert('guardianships', [
        'student_id' => $this->noor,
        'guardian_id' => $this->layla,
        'state' => 'listed',
    ]);
    $this->at = "/api/sections/{$this->world->section}/invited";
    $this->staff = fn(string $method, string $path = '', array $body = [], string $as = 'lead') => $this->actingAs(
        $this->world->as($as),
    )->json($method, $this->at . $path, $body);
    // Looked at, and sent as it was seen.
    $this->send = function (string $who, bool $family = false, string $as = 'lead') {
        $wish = ['who' => $who, 'family' => $family];
        $seen = ($this->staff)('POST', '/plan', $wish, $as)->assertOk()->json('seen');

        return ($this->staff)('POST', '', [...$wish, 'seen' => $seen], $as);
    };
    $this->token = function (): string {
        preg_match('~/come#(\S+)~', (string) OutgoingMessage::query()->orderByDesc('id')->value('text'), $link);

        return $link[1];
    };
    $this->guest = function (string $path, array $body) {
        $this->app['auth']->forgetGuards();

        return $this->postJson("/api/come$path", $body);
    };
    $this->states = fn(string $as = 'lead'): array => array_column(
        ($this->staff)('GET', '', [], $as)->json('invitations'),
        'state',
        'typed',
    );
    $this->isIn = fn(string $person): bool => DB::table('enrollments')
        ->where('section_id', $this->world->section)
        ->where('person_id', $person)
        ->whereNull('ends_on')
        ->exists();
});

it('is looked at first, says who is left out, and tells a teacher no address', function (): void {
    $plan = ($this->staff)('POST', '/plan', ['who' => "020417\nnobody\nlayla@shoremail.example"])->assertOk();
    $plan
        ->assertJsonPath('count', 1)
        ->assertJsonPath('known', 1)
        ->assertJsonPath('leftOut.0.typed', 'nobody')
        ->assertJsonPath(
            'leftOut.1.why',
            'is a guardian’s. Write to the family, or type the student’s number or user name.',
        );
    expect($plan->getContent())->not->toContain('noor@')->not->toContain('Haddad');
    expect(OutgoingMessage::query()->count())->toBe(0);
    ($this->send)('020417')->assertOk()->assertJsonPath('said', 'Sends 1 link into 3 Heron.');
    expect(($this->staff)('GET')->json('invitations.0'))
        ->toMatchArray(['typed' => '020417', 'email' => '', 'name' => '', 'state' => 'sent'])
        ->and(($this->staff)('GET', '', [], 'coordinator')->json('invitations.0'))
        ->toMatchArray(['email' => 'noor@lanternfield.example', 'name' => 'Noor Haddad']);
    // What is sent is what was looked at.
    $seen = ($this->staff)('POST', '/plan', ['who' => 'new@elsewhere.example'])->json('seen');
    ($this->staff)('POST', '', ['who' => 'other@elsewhere.example', 'seen' => $seen])->assertConflict();
    expect(OutgoingMessage::query()->count())->toBe(1);
});

it('brings a student on record in with one touch, opened, once, and signs nobody in', function (): void {
    ($this->send)('noor@lanternfield.example')->assertOk();
    $token = ($this->token)();
    ($this->guest)('', ['token' => $token])
        ->assertOk()
        ->assertJson(['section' => '3 Heron', 'name' => 'Noor', 'family' => false]);
    expect(($this->states)())->toBe(['noor@lanternfield.example' => 'opened']);
    ($this->guest)('/accept', ['token' => $token])
        ->assertOk()
        ->assertExactJson(['section' => '3 Heron', 'already' => false, 'userName' => '']);
    $this->getJson('/api/me')->assertUnauthorized();
    expect(($this->isIn)($this->noor))
        ->toBeTrue()
        ->and(($this->states)())
        ->toBe(['noor@lanternfield.example' => 'came'])
        ->and(($this->staff)('GET')->json('invitations.0.name'))
        ->toBe('Noor Haddad');
    foreach (['', '/accept', '/decline'] as $path) {
        ($this->guest)($path, ['token' => $token])->assertUnprocessable();
    }
    ($this->guest)('', ['token' => str_repeat('x', 22)])->assertUnprocessable();
});

it('writes to a family in its language, and brings the child in by it', function (): void {
    ($this->send)('020417', true)->assertOk();
    $mail = OutgoingMessage::query()->sole();
    expect($mail->to_address)
        ->toBe('layla@shoremail.example')
        ->and($mail->text)
        ->toContain('Petra Okonjo')
        ->toContain('invita a Noor a 3 Heron')
        ->not->toContain('Haddad')
        ->and($mail->language)
        ->toBe('es');
    ($this->guest)('/accept', ['token' => ($this->token)()])->assertOk();
    expect(($this->isIn)($this->noor))->toBeTrue();
});

it('stops at once where the guardian is kept away, the link too', function (): void {
    ($this->send)('020417', true)->assertOk();
    $token = ($this->token)();
    DB::table('outgoing_messages')->update(['state' => 'waiting', 'claim' => ($claim = (string) Str::ulid())]);
    DB::table('guardianships')
        ->where('id', $this->tie)
        ->update(['restriction' => 'By court order']);
    $message = OutgoingMessage::query()->sole();
    expect(app(Outbox::class)->begin($message))
        ->toBeFalse()
        ->and(OutgoingMessage::query()->sole()->state->value)
        ->toBe('stopped');
    ($this->guest)('/accept', ['token' => $token])->assertUnprocessable();
    expect(($this->isIn)($this->noor))->toBeFalse();
});

it('hands over no link that was withdrawn, answered, or leads into an archived section', function (
    string $table,
    array $set,
): void {
    ($this->send)('020417')->assertOk();
    DB::table('outgoing_messages')->update(['state' => 'waiting', 'claim' => (string) Str::ulid()]);
    $message = OutgoingMessage::query()->sole();
    DB::table($table)
        ->when($table === 'people', fn($q) => $q->where('id', $this->noor))
        ->when($table === 'sections', fn($q) => $q->where('id', $this->world->section))
        ->update($set);
    expect(app(Outbox::class)->begin($message))->toBeFalse();
})->with([
    'withdrawn' => ['student_invitations', ['state' => 'withdrawn']],
    'came in' => ['student_invitations', ['state' => 'came']],
    'archived' => ['sections', ['state' => 'archived']],
    'left' => ['people', ['state' => 'left']],
]);

it('is sent again with another link, and withdrawn', function (): void {
    ($this->send)('020417')->assertOk();
    $first = ($this->token)();
    ($this->guest)('', ['token' => $first])->assertOk();
    expect(($this->states)())->toBe(['020417' => 'opened']);
    $id = ($this->staff)('GET')->json('invitations.0.id');
    ($this->staff)('POST', "/$id/again")->assertOk();
    expect(($this->token)())
        ->not->toBe($first)
        ->and(($this->states)())
        ->toBe(['020417' => 'sent']);
    ($this->guest)('', ['token' => $first])->assertUnprocessable();
    ($this->guest)('', ['token' => ($this->token)()])->assertOk();
    ($this->staff)('DELETE', "/$id")
        ->assertOk()
        ->assertJsonPath('invitations.0.state', 'withdrawn');
    ($this->guest)('', ['token' => ($this->token)()])->assertUnprocessable();
    ($this->staff)('POST', "/$id/again")->assertUnprocessable();
    // Of another section it is not there.
    $this->at = "/api/sections/{$this->world->otherSection}/invited";
    ($this->staff)('DELETE', "/$id", [], 'other teacher')->assertNotFound();
});

it('lets a newcomer at an address of the school in at once, with that address confirmed', function (): void {
    ($this->send)('marlo@lanternfield.example')->assertOk();
    DB::table('schools')->update(['newcomer_check' => 'birth_date']);
    $ask = [
        'token' => ($this->token)(),
        'given_name' => 'Marlo',
        'family_name' => 'Quill',
        'birth_date' => '2010-05-04',
        'password' => 'otter on maple',
    ];
    ($this->guest)('/ask', [...$ask, 'password' => 'short'])->assertUnprocessable();
    ($this->guest)('/ask', $ask)
        ->assertOk()
        ->assertJsonPath('state', 'approved')
        ->assertJsonPath('userName', 'marlo.quill');
    $marlo = DB::table('people')->where('family_name', 'Quill')->first();
    expect($marlo->email)
        ->toBe('marlo@lanternfield.example')
        ->and($marlo->email_state)
        ->toBe('confirmed')
        ->and(($this->isIn)($marlo->id))
        ->toBeTrue();
    $this->getJson('/api/me')->assertOk()->assertJsonPath('kind', 'student');
    expect(($this->states)())->toBe(['marlo@lanternfield.example' => 'came']);
});

it('makes whoever is like somebody on the Roll wait, and no second account', function (): void {
    ($this->send)('haddad.home@lanternfield.example')->assertOk();
    ($this->guest)('/ask', [
        'token' => ($this->token)(),
        'given_name' => 'Noor',
        'family_name' => 'Haddad',
        'birth_date' => '2012-05-01',
        'password' => 'otter on maple',
    ])->assertJsonPath('state', 'waiting');
    expect(DB::table('people')->where('family_name', 'Haddad')->where('kind', 'student')->count())->toBe(1);
    $asked = $this->actingAs($this->world->as('lead'))->getJson("/api/sections/{$this->world->section}/requests");
    $asked->assertJsonPath('requests.0.cause', 'invited');
    $id = $asked->json('requests.0.id');
    $as = $asked->json('requests.0.mayBe.0.id');
    $this->postJson("/api/sections/{$this->world->section}/requests/$id/approve", ['as' => $as])->assertOk();
    expect(($this->isIn)($this->noor))
        ->toBeTrue()
        ->and(($this->states)())
        ->toBe(['haddad.home@lanternfield.example' => 'came']);
});

it('lets a student with an account elsewhere come in by it as who they are, and no teacher', function (): void {
    ($this->send)('noor.at.home@elsewhere.example')->assertOk();
    $token = ($this->token)();
    ($this->guest)('/accept', ['token' => $token])->assertNotFound();
    $this->actingAs($this->world->as('other teacher'))
        ->postJson('/api/come/accept', ['token' => $token])
        ->assertUnprocessable();
    $this->actingAs(App\Models\Person::query()->findOrFail($this->noor))
        ->postJson('/api/come/accept', ['token' => $token])
        ->assertOk();
    expect(($this->isIn)($this->noor))->toBeTrue();
});

it('is undone from the Ledger: the student is out, and the link waits again', function (): void {
    ($this->send)('020417')->assertOk();
    ($this->guest)('/accept', ['token' => ($this->token)()])->assertOk();
    $entry = DB::table('ledger_entries')->where('action', 'join')->value('id');
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/ledger/$entry/undo")
        ->assertOk();
    expect(($this->isIn)($this->noor))
        ->toBeFalse()
        ->and(($this->states)())
        ->toBe(['020417' => 'sent']);
});

it('says where a mail did not arrive, and counts what one account tries', function (): void {
    ($this->send)('020417')->assertOk();
    DB::table('outgoing_messages')->update(['state' => 'bounced', 'problem' => 'No such mailbox.']);
    // What a mail server says may name an address on record.
    expect(($this->staff)('GET')->json('invitations.0'))
        ->toMatchArray(['state' => 'not_there', 'problem' => ''])
        ->and(($this->staff)('GET', '', [], 'coordinator')->json('invitations.0.problem'))
        ->toBe('No such mailbox.');
    config(['vantrel.limits' => ['invite-by' => 3]]);
    ($this->staff)('POST', '/plan', ['who' => '1'])->assertOk();
    ($this->staff)('POST', '/plan', ['who' => '2'])->assertTooManyRequests();
});

it('takes a request back to the link it was made with, and clears both away once they are old', function (): void {
    ($this->send)('marlo@elsewhere.example')->assertOk();
    ($this->send)('tove@elsewhere.example')->assertOk();
    $ask = fn() => ($this->guest)('/ask', [
        'token' => ($this->token)(),
        'given_name' => 'Tove',
        'family_name' => 'Ravnkilde',
        'birth_date' => '2010-05-04',
        'password' => 'otter on maple',
    ])->assertJsonPath('state', 'waiting');
    $ask();
    $entry = DB::table('ledger_entries')->where('action', 'ask')->value('id');
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/ledger/$entry/undo")
        ->assertOk();
    expect(DB::table('join_requests')->count())
        ->toBe(0)
        ->and(DB::table('student_invitations')->where('email', 'tove@elsewhere.example')->value('state'))
        ->toBe('invited');
    $ask();
    $request = DB::table('join_requests')->value('id');
    $this->actingAs($this->world->as('lead'))
        ->postJson("/api/sections/{$this->world->section}/requests/$request/refuse")
        ->assertOk();
    expect(($this->states)())->toEqual([
        'marlo@elsewhere.example' => 'sent',
        'tove@elsewhere.example' => 'turned_away',
    ]);
    $this->travel(400)->days();
    $this->artisan('vantrel:clean-up')->assertExitCode(0);
    expect(DB::table('student_invitations')->count())
        ->toBe(0)
        ->and(DB::table('join_requests')->count())
        ->toBe(0);
});

it('brings in by a family’s link no student who happens to be signed in', function (): void {
    ($this->send)('family@elsewhere.example', true)->assertOk();
    $this->actingAs(App\Models\Person::query()->findOrFail($this->noor))
        ->postJson('/api/come/accept', ['token' => ($this->token)()])
        ->assertNotFound();
});

it('is sent again from the Mailroom with the link it has, while it waits', function (): void {
    ($this->send)('020417')->assertOk();
    $message = OutgoingMessage::query()->sole();
    $message->update(['state' => 'refused', 'problem' => 'No.']);
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/messages/$message->id/again")
        ->assertOk();
    $again = OutgoingMessage::query()->orderByDesc('id')->firstOrFail();
    $again->update(['state' => 'waiting', 'claim' => (string) Str::ulid()]);
    expect(app(Outbox::class)->begin($again))->toBeTrue();
});

it('says until when a link works by the clocks of the school, and keeps its word all that day', function (): void {
    DB::table('schools')->update(['time_zone' => 'America/New_York']);
    SchoolDay::forget();
    // On the first of December, in the evening there.
    $this->travelTo('2026-12-02 01:30:00');
    ($this->send)('noor@lanternfield.example')->assertOk();
    expect((string) OutgoingMessage::query()->value('text'))->toContain('until December 14, 2026');
    $token = ['token' => ($this->token)()];
    $this->travelTo('2026-12-15 04:59:00');
    ($this->guest)('', $token)->assertOk();
    $this->travelTo('2026-12-16 01:31:00');
    ($this->guest)('', $token)->assertUnprocessable();
});
