<?php

declare(strict_types=1);

use App\Mailroom\Compose;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Codes\CodeSymbols;

beforeEach(function (): void {
    $this->world = World::make();
    $this->guest = fn() => tap($this, fn($t) => $t->app['auth']->forgetGuards());
});

it('signs in by user name and passphrase, in any case and spacing', function (): void {
    $this->world->student('Noor Haddad', $this->world->section, [], 'maple otter candy');
    $this->postJson('/api/sign-in', ['user_name' => ' Noor.HADDAD ', 'secret' => 'Maple  otter-candy'])
        ->assertOk()
        ->assertJsonPath('me.kind', 'student')
        ->assertJsonPath('needs', '');
    expect(DB::table('sign_ins')->where('user_name', 'noor.haddad')->value('last_signed_in_at'))->not->toBeNull();
});

it('answers every failed sign-in alike, known user name or not', function (): void {
    $this->world->student('Noor Haddad', $this->world->section, [], 'maple otter candy');
    $wrong = $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => 'nope'])->assertStatus(422);
    $unknown = $this->postJson('/api/sign-in', ['user_name' => 'nobody.here', 'secret' => 'nope'])->assertStatus(422);
    $without = $this->postJson('/api/sign-in', ['user_name' => 'wilhelmina.seabright', 'secret' => ''])->assertStatus(
        422,
    );
    expect($wrong->json('detail'))->toBe($unknown->json('detail'));
    $this->assertGuest();
});

it('stops guessing at one account after ten tries, and other accounts go on', function (): void {
    $this->world->student('Noor Haddad', $this->world->section, [], 'maple otter candy');
    for ($i = 0; $i < 10; $i++) {
        $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => "wrong $i"])->assertStatus(422);
    }
    $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => 'maple otter candy'])->assertStatus(429);
    $this->postJson('/api/sign-in', [
        'user_name' => 'petra.okonjo@lanternfield.example',
        'secret' => 'lantern harbor morning',
    ])->assertOk();
});

it('lets nobody in who has left, nor with a lost card', function (): void {
    $id = $this->world->student('Noor Haddad', $this->world->section, ['state' => 'left'], 'maple otter candy');
    $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => 'maple otter candy'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This account is closed: its owner has left the school. Ask the school office.');
    $this->world->badge($this->world->people['student'], 'token-of-the-card');
    $this->get('/b/token-of-the-card')->assertRedirect('/');
    expect(auth()->id())->toBe($this->world->people['student']);
    auth()->logout();
    DB::table('badges')->update(['state' => 'lost']);
    $this->get('/b/token-of-the-card')->assertRedirect('/?card=ended');
    $this->assertGuest();
});

it('signs out, and gives the session a new id at every sign-in', function (): void {
    $this->postJson('/api/sign-in', [
        'user_name' => 'petra.okonjo@lanternfield.example',
        'secret' => 'lantern harbor morning',
    ])->assertOk();
    $this->postJson('/api/sign-out')->assertNoContent();
    ($this->guest)()->getJson('/api/me')->assertStatus(401)->assertJsonPath('title', 'Not signed in');
});

it('says what kind of mistake a code has, never which codes exist', function (): void {
    $code = $this->world->code;
    $this->getJson('/api/join/check?code=' . $code)
        ->assertOk()
        ->assertJson(['wellFormed' => true, 'written' => CodeSymbols::parse($code)->written()]);
    $unused = CodeSymbols::fromPayload('BCDFGH')->symbols;
    $this->getJson('/api/join/check?code=' . $unused)->assertJson(['wellFormed' => true]);
    $this->getJson('/api/join/check?code=KDM4X0R')->assertJson(['wellFormed' => false, 'mistake' => 'foreign_symbol']);
});

it('lets a student in once by the code, and says so the second time', function (): void {
    $id = $this->world->student('Noor Haddad');
    $this->actingAs(App\Models\Person::query()->findOrFail($id));
    $this->postJson('/api/join', ['code' => strtolower($this->world->code)])
        ->assertOk()
        ->assertJson(['section' => '3 Heron', 'already' => false]);
    $this->postJson('/api/join', ['code' => $this->world->code])
        ->assertOk()
        ->assertJson(['already' => true]);
    expect(DB::table('enrollments')->where('person_id', $id)->count())->toBe(1);
    $this->getJson('/api/home')
        ->assertJsonPath('students.0.sections.0.name', '3 Heron')
        ->assertJsonPath('students.0.sections.0.teachers.0', 'Petra Okonjo');
});

it('counts only well-formed unknown codes as tries, and stops after the day’s number', function (): void {
    config(['vantrel.limits' => ['join-by' => 5]]);
    $this->actingAs($this->world->as('student'));
    for ($i = 0; $i < 30; $i++) {
        $this->postJson('/api/join', ['code' => 'KDM4X7K'])->assertStatus(422);
    }
    foreach (['BCDFGH', 'BCDFGJ', 'BCDFGK', 'BCDFGM', 'BCDFGN'] as $payload) {
        $this->postJson('/api/join', ['code' => CodeSymbols::fromPayload($payload)->symbols])
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.code.0',
                'This code opens nothing, or not any more. Ask your teacher for the one that works today.',
            );
    }
    $this->postJson('/api/join', ['code' => $this->world->code])->assertStatus(429);
    // A classmate on the same address comes in all the same; somebody there who is not signed in waits for a person
    // to look.
    config(['vantrel.limits' => ['join' => 5, 'join-by' => 5]]);
    $this->actingAs(App\Models\Person::query()->findOrFail($this->world->student('Noor Haddad')))
        ->postJson('/api/join', ['code' => $this->world->code])
        ->assertOk();
    $this->flushSession();
    auth()->logout();
    $this->postJson('/api/join/door', ['code' => $this->world->code])->assertJsonPath('looked', true);
    $this->travel(1)->days();
    $this->postJson('/api/join/door', ['code' => $this->world->code])->assertJsonPath('looked', false);
});

it('takes an empty limit in the settings for none, and its own number instead', function (
    mixed $own,
    int $tries,
): void {
    config(['vantrel.limits' => ['join-by' => $own]]);
    $this->actingAs($this->world->as('student'));
    for ($i = 0; $i < $tries; $i++) {
        $this->postJson('/api/join', ['code' => CodeSymbols::fromPayload('BCDFGH')->symbols])->assertStatus(422);
    }
    $this->postJson('/api/join', ['code' => $this->world->code])->assertStatus(429);
})->with([['', 10], [null, 10], ['0', 10], ['3', 3]]);

it('opens, replaces and closes a code', function (): void {
    $teacher = $this->actingAs($this->world->as('co_teacher'));
    $section = $this->world->section;
    $first = $teacher->getJson("/api/sections/$section/code")->assertOk();
    expect($first->json('link'))
        ->toEndWith('/in/' . $this->world->code)
        ->and($first->json('guessPerDay'))
        ->toBeLessThan(0.0001)
        ->and($first->json('qrSize'))
        ->toBeGreaterThan(20);
    $second = $teacher
        ->postJson("/api/sections/$section/code")
        ->assertOk()
        ->json('written');
    expect($second)->not->toBe($first->json('written'));
    $this->actingAs($this->world->as('student'))
        ->postJson('/api/join', ['code' => $this->world->code])
        ->assertStatus(422);
    $this->actingAs($this->world->as('lead'))
        ->deleteJson("/api/sections/$section/code")
        ->assertNoContent();
    $this->getJson("/api/sections/$section/code")->assertStatus(404);
    $this->deleteJson("/api/sections/$section/code")->assertStatus(422);
    $this->actingAs($this->world->as('student'))
        ->postJson('/api/join', ['code' => $second])
        ->assertStatus(422);
    $other = $this->world->student('Kai Wu');
    $this->actingAs(App\Models\Person::query()->findOrFail($other))
        ->postJson('/api/join', ['code' => $second])
        ->assertStatus(422);
});

it('can put a closed code back by undo', function (): void {
    $lead = $this->actingAs($this->world->as('lead'));
    $lead->postJson("/api/sections/{$this->world->section}/code")->assertOk();
    $entry = DB::table('ledger_entries')->value('id');
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/ledger/$entry/undo")
        ->assertOk()
        ->assertJsonPath('kept', []);
    $this->actingAs($this->world->as('lead'))
        ->getJson("/api/sections/{$this->world->section}/code")
        ->assertJsonPath('written', CodeSymbols::parse($this->world->code)->written());
});

it('invites by mail; who has no account makes one and works in the section', function (): void {
    $invite = $this->actingAs($this->world->as('lead'))
        ->postJson("/api/sections/{$this->world->section}/invitations", [
            'email' => 'Nela.Quist@lanternfield.example',
            'role' => 'co_teacher',
        ])
        ->assertOk();
    expect($invite->json('invitations.0'))->toMatchArray([
        'email' => 'nela.quist@lanternfield.example',
        'state' => 'invited',
    ]);
    $mail = DB::table('outgoing_messages')->first();
    preg_match('~/invited#(\S+)~', $mail->text, $m);
    expect($mail->to_address)
        ->toBe('nela.quist@lanternfield.example')
        ->and($mail->school_id)
        ->toBe($this->world->school)
        ->and(Compose::html(OutgoingMessage::query()->findOrFail($mail->id)))
        ->toContain($m[1])
        ->and(DB::table('invitations')->value('token_hash'))
        ->toBe(hash('sha256', $m[1]));
    auth()->logout();
    ($this->guest)()
        ->postJson('/api/invited', ['token' => $m[1]])
        ->assertOk()
        ->assertJson(['section' => '3 Heron', 'state' => 'invited', 'hasAccount' => false]);
    $this->postJson('/api/invited/accept', [
        'token' => $m[1],
        'given_name' => 'Nela',
        'family_name' => 'Quist',
        'password' => 'too short',
    ])
        ->assertStatus(422)
        ->assertJsonPath('errors.password.0', 'Use at least 15 characters; this has 9. Several words are easiest.');
    $this->postJson('/api/invited/accept', [
        'token' => $m[1],
        'given_name' => 'Nela',
        'family_name' => 'Quist',
        'password' => 'four green boats at sea',
    ])
        ->assertOk()
        ->assertJsonPath('name', 'Nela Quist');
    $this->getJson("/api/sections/{$this->world->section}")
        ->assertOk()
        ->assertJsonPath(
            'powers',
            fn(array $p): bool => in_array('invite_staff', $p, true) && !in_array('archive', $p, true),
        );
    $this->postJson('/api/invited/accept', ['token' => $m[1]])->assertStatus(422);
    $this->actingAs($this->world->as('lead'))
        ->getJson("/api/sections/{$this->world->section}")
        ->assertJsonPath('invitations.0.state', 'accepted');
});

it('asks one who has an account to sign in, and takes the answer of that account only', function (): void {
    $this->actingAs($this->world->as('lead'))
        ->postJson("/api/sections/{$this->world->section}/invitations", [
            'email' => 'ruben.aske@lanternfield.example',
            'role' => 'assistant',
        ])
        ->assertOk();
    preg_match('~/invited#(\S+)~', (string) DB::table('outgoing_messages')->value('text'), $m);
    auth()->logout();
    ($this->guest)()
        ->postJson('/api/invited', ['token' => $m[1]])
        ->assertJson(['hasAccount' => true, 'signedInAsInvited' => false]);
    $this->postJson('/api/invited/accept', [
        'token' => $m[1],
        'given_name' => 'X',
        'family_name' => 'Y',
        'password' => 'four green boats at sea',
    ])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Sign in as ruben.aske@lanternfield.example first, then accept.');
    $this->actingAs($this->world->as('co_teacher'))
        ->postJson('/api/invited/accept', ['token' => $m[1]])
        ->assertStatus(422);
    $this->actingAs($this->world->as('other teacher'))
        ->postJson('/api/invited/accept', ['token' => $m[1]])
        ->assertOk();
    $this->getJson("/api/sections/{$this->world->section}")
        ->assertOk()
        ->assertJsonPath('powers', ['see_roster', 'print_cards']);
});

it('sends again with a new link, withdraws, is declined, and expires', function (): void {
    $lead = $this->actingAs($this->world->as('lead'));
    $lead->postJson("/api/sections/{$this->world->section}/invitations", [
        'email' => 'a.b@lanternfield.example',
        'role' => 'co_teacher',
    ]);
    $id = DB::table('invitations')->value('id');
    $lead->postJson("/api/invitations/$id/again")->assertOk();
    [$old, $new] = DB::table('outgoing_messages')
        ->orderBy('id')
        ->pluck('text')
        ->map(fn(string $t): string => preg_match('~/invited#(\S+)~', $t, $m) === 1 ? $m[1] : '')
        ->all();
    $this->postJson('/api/invited', ['token' => $old])->assertStatus(404);
    $this->postJson('/api/invited', ['token' => $new])->assertOk();
    $this->postJson('/api/invited/decline', ['token' => $new])->assertNoContent();
    $this->postJson('/api/invited', ['token' => $new])->assertJsonPath('state', 'declined');
    $lead->postJson("/api/invitations/$id/again")->assertStatus(422);
    $lead
        ->postJson("/api/sections/{$this->world->section}/invitations", [
            'email' => 'a.b@elsewhere.example',
            'role' => 'co_teacher',
        ])
        ->assertStatus(422);
    $lead
        ->postJson("/api/sections/{$this->world->section}/invitations", [
            'email' => 'c.d@lanternfield.example',
            'role' => 'co_teacher',
        ])
        ->assertOk();
    $second = DB::table('invitations')->where('email', 'c.d@lanternfield.example')->value('id');
    $this->travel(15)->days();
    $this->flushSession();
    $lead = $this->actingAs($this->world->as('lead'));
    $lead
        ->getJson("/api/sections/{$this->world->section}")
        ->assertJsonFragment(['email' => 'c.d@lanternfield.example', 'role' => 'co-teacher', 'state' => 'expired']);
    $lead->deleteJson("/api/invitations/$second")->assertNoContent();
});

it('shows a guardian only the children connected to them', function (): void {
    $this->world->student('Noor Haddad', $this->world->section);
    $listed = $this->world->student('Kai Wu', $this->world->section);
    $this->world->insert('guardianships', [
        'student_id' => $listed,
        'guardian_id' => $this->world->people['guardian'],
        'state' => 'listed',
    ]);
    $this->actingAs($this->world->as('guardian'))
        ->getJson('/api/home')
        ->assertOk()
        ->assertJsonCount(1, 'students')
        ->assertJsonPath('students.0.name', 'Wilhelmina Seabright')
        ->assertJsonPath('students.0.userName', '');
    DB::table('guardianships')
        ->where('state', 'connected')
        ->update(['restriction' => 'court order']);
    $this->getJson('/api/home')->assertJsonCount(0, 'students');
});

it('keeps the headers that browsers guard by', function (): void {
    $page = $this->get('/')->assertOk();
    expect($page->headers->get('Content-Security-Policy'))
        ->toContain("frame-ancestors 'none'")
        ->and($page->headers->get('X-Content-Type-Options'))
        ->toBe('nosniff');
    expect($this->getJson('/api/join/check?code=x')->headers->get('Cache-Control'))->toContain('no-store');
    $this->getJson('/api/no-such-thing')->assertStatus(404)->assertHeader('Content-Type', 'application/problem+json');
});
