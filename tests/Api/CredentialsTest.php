<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\Browser;
use Tests\Support\World;
use Vantrel\Core\Codes\Token;

beforeEach(function (): void {
    $this->world = World::make();
    $this->student = $this->world->people['student'];
    $this->password = 'lantern harbor morning';
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->browser = fn(): Browser => new Browser($this);
    $this->list = fn(string $person): array => ($this->as)('coordinator')
        ->getJson("/api/people/$person/credentials")
        ->assertOk()
        ->json('credentials');
    $this->end = fn(string $person, string $kind, string $id, array $more = []) => ($this->as)('coordinator')->postJson(
        "/api/people/$person/credentials/end",
        ['kind' => $kind, 'id' => $id, ...$more],
    );
});

it('lists every way to sign in with when, where and who issued it', function (): void {
    DB::table('sign_ins')
        ->where('person_id', $this->student)
        ->update(['passphrase' => null]);
    ($this->as)('lead')
        ->postJson("/api/sections/{$this->world->section}/cards", [
            'person_ids' => [$this->student],
            'layout' => 'cards-a4',
            'order' => 'reading',
        ])
        ->assertOk();
    $badge = DB::table('badges')->first();
    DB::table('badges')->update(['token_hash' => Token::hashOf('the-card')]);
    auth()->logout();
    ($this->browser)()
        ->post('/api/sign-in/card', ['token' => 'the-card'])
        ->assertOk();
    $list = collect(($this->list)($this->student))->keyBy('kind');
    expect($list->keys()->all())
        ->toBe(['passphrase', 'card'])
        ->and($list['card'])
        ->toMatchArray(['id' => $badge->id, 'what' => 'wilhelmina.seabright', 'by' => 'card printed by Petra Okonjo'])
        ->and($list['card']['lastUsed'])
        ->not->toBeNull()
        ->and($list['card']['where'])
        ->toBe('a device, 127.0.0.1')
        ->and($list['passphrase'])
        ->toMatchArray(['by' => 'card printed by Petra Okonjo', 'lastUsed' => null])
        ->and($list['passphrase']['since'])
        ->not->toBeNull();
    $staff = $this->world->people['lead'];
    $this->world->insert('identities', [
        'person_id' => $staff,
        'issuer' => 'https://id.example/x',
        'subject' => 's',
        'made_at' => '2026-09-01 08:00:00',
    ]);
    DB::table('second_factors')->insert([
        'person_id' => $staff,
        'secret' => 'x',
        'confirmed_at' => '2026-09-02 08:00:00',
        'recovery' => '[]',
    ]);
    DB::table('password_resets')->insert([
        'id' => str_repeat('0', 26),
        'sign_in_id' => DB::table('sign_ins')->where('person_id', $staff)->value('id'),
        'token_hash' => hash('sha256', 'x'),
        'address' => 'petra.okonjo@lanternfield.example',
        'made_at' => now(),
        'expires_at' => now()->addHour(),
    ]);
    DB::table('sessions')->insert([
        'id' => 'an-open-session',
        'user_id' => $staff,
        'payload' => '',
        'ip_address' => '192.0.2.7',
        'user_agent' => 'CrOS',
        'last_activity' => time(),
        'way' => 'password',
    ]);
    $list = collect(($this->list)($staff))->keyBy('kind');
    expect($list->keys()->all())
        ->toBe(['password', 'sign_on', 'second_factor', 'link', 'session'])
        ->and($list['sign_on']['what'])
        ->toBe('id.example')
        ->and($list['session'])
        ->toMatchArray(['what' => 'Chromebook', 'where' => '192.0.2.7', 'by' => 'with the password'])
        ->and(json_encode($list))
        ->not->toContain('an-open-session');
    $page = ($this->as)('coordinator')->getJson("/api/people/$staff/credentials");
    $page->assertJson([
        'address' => 'petra.okonjo@lanternfield.example',
        'confirmed' => true,
        'addressSays' => 'an address of the school',
        'canSendLink' => true,
        'canLeave' => true,
    ]);
    $this->getJson("/api/people/$this->student/credentials")->assertJson([
        'canSendLink' => false,
        'canLeave' => false,
        'confirmed' => false,
    ]);
});

it('ends one that is the person’s, and no other’s', function (): void {
    $other = $this->world->student('Noor Haddad', null, [], 'maple otter candy');
    $this->world->badge($other, 'noors-card');
    foreach (
        [
            ['card', DB::table('badges')->value('id')],
            ['passphrase', DB::table('sign_ins')->where('person_id', $other)->value('id')],
            ['session', str_repeat('a', 32)],
            ['link', str_repeat('0', 26)],
            ['second_factor', $other],
            ['sign_on', str_repeat('0', 26)],
        ]
        as [$kind, $id]
    ) {
        ($this->end)($this->student, $kind, $id, ['password' => $this->password])->assertStatus(404);
    }
    expect(DB::table('badges')->value('state'))
        ->toBe('live')
        ->and(DB::table('ledger_entries')->count())
        ->toBe(0);
    ($this->end)($other, 'card', DB::table('badges')->value('id'))
        ->assertOk()
        ->assertJsonPath('said', 'One printed card of Noor Haddad stops signing in at once; others go on working.');
    ($this->end)($other, 'card', DB::table('badges')->value('id'))->assertStatus(422);
    $entry = DB::table('ledger_entries')->first();
    expect($entry->action)->toBe('end-credential');
    ($this->as)('coordinator')
        ->postJson("/api/ledger/$entry->id/undo")
        ->assertOk();
    expect(DB::table('badges')->value('state'))->toBe('live');
});

it('takes the password again before it removes a second factor', function (): void {
    $staff = $this->world->people['lead'];
    DB::table('second_factors')->insert([
        'person_id' => $staff,
        'secret' => 'x',
        'confirmed_at' => now(),
        'recovery' => '[]',
    ]);
    ($this->end)($staff, 'second_factor', $staff)->assertStatus(422)->assertJsonValidationErrors('password');
    ($this->end)($staff, 'second_factor', $staff, ['password' => 'a guess'])->assertStatus(422);
    ($this->end)($staff, 'second_factor', $staff, ['password' => $this->password])->assertOk();
    expect(DB::table('second_factors')->count())
        ->toBe(0)
        ->and(DB::table('outgoing_messages')->where('subject', 'The second factor was removed')->count())
        ->toBe(1);
    expect(DB::table('ledger_entries')->where('action', 'second-factor')->value('title'))->toContain(
        'Second factor of',
    );
});

it('tells the person by mail where there is a confirmed address, and nobody where there is none', function (): void {
    $staff = $this->world->people['lead'];
    ($this->end)($staff, 'password', DB::table('sign_ins')->where('person_id', $staff)->value('id'))->assertOk();
    expect(DB::table('outgoing_messages')->pluck('to_address')->all())->toBe(['petra.okonjo@lanternfield.example']);
    DB::table('people')
        ->where('id', $this->world->people['co_teacher'])
        ->update(['email_state' => 'claimed']);
    ($this->as)('coordinator')
        ->postJson("/api/people/{$this->world->people['co_teacher']}/credentials/end-all")
        ->assertOk();
    expect(DB::table('outgoing_messages')->count())
        ->toBe(1)
        ->and((string) DB::table('outgoing_messages')->value('text'))
        ->toContain('tell Lanternfield Primary today')
        ->not->toContain('http');
});

it('sends a link for a first sign-in, which confirms the address and counts once', function (): void {
    $guardian = $this->world->people['guardian'];
    DB::table('people')
        ->where('id', $guardian)
        ->update(['email_state' => 'claimed', 'email_by' => 'list']);
    ($this->as)('coordinator')
        ->postJson("/api/people/$this->student/sign-in-link")
        ->assertStatus(422);
    $this->postJson("/api/people/$guardian/sign-in-link")
        ->assertOk()
        ->assertJsonPath('confirmed', false)
        ->assertJsonPath('credentials.1.kind', 'link');
    $mail = DB::table('outgoing_messages')->first();
    expect($mail->to_address)->toBe('helene@shoremail.example')->and($mail->text)->toContain('within 7 days');
    preg_match('~/new-password#(\S+)~', $mail->text, $m);
    auth()->logout();
    $this->postJson('/api/new-password', [
        'token' => $m[1],
        'password' => 'four green boats at sea',
    ])->assertNoContent();
    $this->postJson('/api/new-password', ['token' => $m[1], 'password' => 'five green boats at sea'])->assertStatus(
        404,
    );
    expect(
        DB::table('people')
            ->where('id', $guardian)
            ->first(['email_state', 'email_by']),
    )->toEqual((object) ['email_state' => 'confirmed', 'email_by' => 'mail']);
    // A link to an address that has been changed since confirms nothing.
    DB::table('people')
        ->where('id', $guardian)
        ->update(['email_state' => 'claimed']);
    ($this->as)('coordinator')
        ->postJson("/api/people/$guardian/sign-in-link")
        ->assertOk();
    DB::table('people')
        ->where('id', $guardian)
        ->update(['email' => 'other@shoremail.example']);
    preg_match('~/new-password#(\S+)~', (string) DB::table('outgoing_messages')->orderByDesc('id')->value('text'), $m);
    auth()->logout();
    // It went to a mailbox that is not theirs any more.
    $this->postJson('/api/new-password', ['token' => $m[1], 'password' => 'six green boats at sea'])->assertNotFound();
    expect(DB::table('people')->where('id', $guardian)->value('email_state'))->toBe('claimed');
});

it(
    'sees staff off: nothing of them signs in, sections are handed over, and undo brings back all but secrets',
    function (): void {
        $lead = $this->world->people['lead'];
        $this->world->coordinates($lead, $this->world->school);
        $this->world->badge($lead, 'petras-card');
        $this->world->insert('invitations', [
            'section_id' => $this->world->otherSection,
            'email' => 'petra.okonjo@lanternfield.example',
            'role' => 'assistant',
            'state' => 'invited',
            'token_hash' => hash('sha256', 'x'),
            'sent_at' => now(),
            'expires_at' => now()->addDay(),
            'invited_by' => $this->world->people['coordinator'],
        ]);
        $petra = ($this->browser)();
        $petra->signIn('petra.okonjo@lanternfield.example', $this->password)->assertOk();
        $before = World::checksum();
        $plan = ($this->as)('coordinator')
            ->postJson("/api/people/$lead/off-board/plan")
            ->assertOk();
        expect($plan->json('warnings.0'))
            ->toContain('3 Heron')
            ->and($plan->json('sentence'))
            ->toContain('leaves 1 section without a lead')
            ->and(World::checksum())
            ->toBe($before);
        $to = $this->world->people['co_teacher'];
        $plan = $this->postJson("/api/people/$lead/off-board/plan", ['to' => $to])
            ->assertOk()
            ->json();
        $apply = ['to' => $to, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']];
        $this->postJson("/api/people/$lead/off-board", $apply)
            ->assertStatus(422)
            ->assertJsonValidationErrors('password');
        $this->postJson("/api/people/$lead/off-board", [
            ...$apply,
            'to' => null,
            'password' => $this->password,
        ])->assertStatus(409);
        $this->postJson("/api/people/$lead/off-board", [...$apply, 'password' => $this->password])
            ->assertOk()
            ->assertJsonPath('credentials', [])
            ->assertJsonPath('canLeave', false);
        auth()->logout();
        expect($petra->who())->toBeNull();
        ($this->browser)()->signIn('petra.okonjo@lanternfield.example', $this->password)->assertStatus(422);
        ($this->browser)()
            ->post('/api/sign-in/card', ['token' => 'petras-card'])
            ->assertStatus(422);
        expect(
            DB::table('enrollments')
                ->where('section_id', $this->world->section)
                ->where('role', 'lead')
                ->whereNull('ends_on')
                ->value('person_id'),
        )
            ->toBe($to)
            ->and(DB::table('coordinators')->where('person_id', $lead)->value('state'))
            ->toBe('ended')
            ->and(DB::table('invitations')->value('state'))
            ->toBe('withdrawn');
        $entry = DB::table('ledger_entries')->where('action', 'off-board')->value('id');
        $kept = ($this->as)('coordinator')
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk()
            ->json('kept');
        expect($kept)
            ->toBe([])
            ->and(DB::table('people')->where('id', $lead)->value('state'))
            ->toBe('active');
        auth()->logout();
        ($this->browser)()->signIn('petra.okonjo@lanternfield.example', $this->password)->assertStatus(422);
        ($this->browser)()
            ->post('/api/sign-in/card', ['token' => 'petras-card'])
            ->assertOk();
        // But for the password, and the time of the last sign-in, everything is as it was.
        DB::table('sign_ins')
            ->where('person_id', $lead)
            ->update(['password' => null]);
        $now = World::checksum();
        expect(array_diff_key($now, ['sign_ins' => 1]))->toBe(array_diff_key($before, ['sign_ins' => 1]));
    },
);

it('sees nobody off who is the only coordinator, or is doing it', function (): void {
    $ines = $this->world->people['coordinator'];
    $plan = ($this->as)('coordinator')
        ->postJson("/api/people/$ines/off-board/plan")
        ->assertOk()
        ->json();
    expect($plan['blockers'][0])->toContain('only coordinator');
    $this->postJson("/api/people/$ines/off-board", [
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
        'password' => $this->password,
    ])->assertStatus(422);
    $this->postJson("/api/people/{$this->world->people['lead']}/off-board/plan", [
        'to' => $this->world->people['other coordinator'],
    ])->assertStatus(422);
    $this->postJson("/api/people/$this->student/off-board/plan")->assertStatus(422);
    $this->artisan('vantrel:coordinator', [
        'user' => 'PETRA.okonjo@lanternfield.example',
        '--school' => 'primary',
    ])->assertExitCode(0);
    $this->artisan('vantrel:coordinator', [
        'user' => 'petra.okonjo@lanternfield.example',
        '--school' => 'primary',
    ])->assertExitCode(1);
    $this->artisan('vantrel:coordinator', ['user' => 'nobody', '--school' => 'primary'])->assertExitCode(2);
    $this->artisan('vantrel:coordinator', [
        'user' => 'petra.okonjo@lanternfield.example',
        '--school' => 'none',
    ])->assertExitCode(2);
    expect(
        ($this->as)('lead')
            ->getJson("/api/schools/{$this->world->school}/desk")
            ->getStatusCode(),
    )->toBe(200);
    expect(
        ($this->as)('coordinator')
            ->postJson("/api/people/$ines/off-board/plan")
            ->json('blockers'),
    )->toBe([]);
});

it('keeps what is in a session from whoever reads the database', function (): void {
    config(['session.driver' => 'database']);
    $this->app['session']->forgetDrivers();
    $this->app->forgetInstance('session.store');
    $this->postJson('/api/sign-in', [
        'user_name' => 'petra.okonjo@lanternfield.example',
        'secret' => $this->password,
    ])->assertOk();
    $row = DB::table('sessions')->where('user_id', $this->world->people['lead'])->first();
    expect($row->way)->toBe('password');
    foreach ([$row->payload, base64_decode($row->payload)] as $seen) {
        expect($seen)
            ->not->toContain('opened_by')
            ->not->toContain('_token')
            ->not->toContain($this->world->people['lead']);
    }
});
