<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */

beforeEach(fn() => readyForAttacks($this));

// 1. Let in as somebody.

it('hands nobody an account that is in use, whatever a teacher takes them for', function (string $role): void {
    $victim = $this->world->people['student'];
    DB::table('sign_ins')
        ->where('person_id', $victim)
        ->update(['last_signed_in_at' => now()]);
    $before = DB::table('sign_ins')->where('person_id', $victim)->get()->toArray();
    // Even with the right birth date.
    foreach (['2018-07-07', '2018-02-11'] as $born) {
        $stranger = ($this->browser)();
        ($this->ask)($stranger, ['birth_date' => $born])->assertOk();
        ($this->approve)($role, $victim);
        $stranger->post('/api/join/asked')->assertJson(['state' => 'approved', 'userName' => '', 'how' => 'card']);
        expect($stranger->who())
            ->toBeNull()
            ->and(DB::table('sign_ins')->where('person_id', $victim)->get()->toArray())
            ->toEqual($before);
        ($this->browser)()->signIn('wilhelmina.seabright', 'green boat stone')->assertStatus(422);
    }
})->with(['lead', 'substitute']);

it(
    'hands out an account that waits only against what the server can check, and undo ends it with its session',
    function (): void {
        $known = $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04']);
        $stranger = ($this->browser)();
        ($this->ask)($stranger, [
            'given_name' => 'Marlo',
            'family_name' => 'Quillfeather',
            'birth_date' => '2012-05-05',
        ]);
        ($this->approve)('lead', $known);
        $stranger->post('/api/join/asked')->assertJson(['how' => 'card']);
        expect($stranger->who())
            ->toBeNull()
            ->and(DB::table('sign_ins')->where('person_id', $known)->whereNotNull('password')->exists())
            ->toBeFalse();
        $owner = ($this->browser)();
        ($this->ask)($owner, ['given_name' => 'Marlo', 'family_name' => 'Quillfeather', 'birth_date' => '2012-05-04']);
        ($this->approve)('lead', $known);
        $owner->post('/api/join/asked')->assertJson(['state' => 'approved', 'userName' => 'marlo.quillfeather']);
        expect($owner->who())->toBe($known);
        ($this->undo)('let-in');
        expect($owner->who())
            ->toBeNull()
            ->and(DB::table('sign_ins')->where('person_id', $known)->value('password'))
            ->toBeNull();
        ($this->browser)()->signIn('marlo.quillfeather', 'green boat stone')->assertStatus(422);
    },
);

it('ends what undo took back: an account made at the door, its password and its session', function (): void {
    $newcomer = ($this->browser)();
    ($this->ask)($newcomer, ['given_name' => 'Zebulon', 'family_name' => 'Fitch']);
    ($this->approve)('lead', null);
    $newcomer->post('/api/join/asked')->assertJson(['state' => 'approved', 'userName' => 'zebulon.fitch']);
    expect($newcomer->who())->not->toBeNull();
    ($this->undo)('let-in');
    // The account has been used, so it stays; what was issued with it does not.
    expect($newcomer->who())->toBeNull();
    ($this->browser)()->signIn('zebulon.fitch', 'green boat stone')->assertStatus(422);
});

it('ends a password that was set since by whoever an undone entry let in', function (): void {
    $newcomer = ($this->browser)();
    ($this->ask)($newcomer, ['given_name' => 'Zebulon', 'family_name' => 'Fitch']);
    ($this->approve)('lead', null);
    $newcomer->post('/api/join/asked');
    $newcomer->post('/api/password', ['password' => 'another boat stone', 'current' => 'green boat stone'])->assertOk();
    ($this->undo)('let-in');
    expect($newcomer->who())->toBeNull();
    ($this->browser)()->signIn('zebulon.fitch', 'another boat stone')->assertStatus(422);
});

it('ends every card of a person that is lost, also of an account merged into theirs', function (): void {
    $other = $this->world->signIn($this->world->people['student'], 'willa.seabright', 'maple otter candy');
    $this->world->insert('badges', [
        'sign_in_id' => $other,
        'token_hash' => hash('sha256', 'older-card'),
        'state' => 'live',
        'made_at' => '2026-08-20 10:00:00',
    ]);
    $this->world->badge($this->world->people['student'], 'the-card');
    [$byCard, $byOlder, $byPhrase] = [($this->browser)(), ($this->browser)(), ($this->browser)()];
    $byCard->post('/api/sign-in/card', ['token' => 'the-card'])->assertOk();
    $byOlder->post('/api/sign-in/card', ['token' => 'older-card'])->assertOk();
    $byPhrase->signIn('willa.seabright', 'maple otter candy')->assertOk();
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/cards", [
            'person_ids' => [$this->world->people['student']],
            'layout' => 'cards-a4',
            'order' => 'reading',
            'lost' => true,
        ])
        ->assertOk();
    auth()->logout();
    expect([$byCard->who(), $byOlder->who(), $byPhrase->who()])->toBe([null, null, null]);
});

// 7. The second factor.

it('asks for the second factor after the school’s sign-on too', function (): void {
    $totp = Vantrel\Core\Accounts\Totp::draw(new Vantrel\Core\Codes\KeyedStream(str_repeat('k', 32), 'factor'));
    DB::table('second_factors')->insert([
        'person_id' => $this->world->people['lead'],
        'secret' => Illuminate\Support\Facades\Crypt::encryptString($totp->base32()),
        'confirmed_at' => now(),
        'recovery' => '[]',
    ]);
    $lead = ($this->browser)();
    claims($this, $lead, ['sub' => 'lead', 'email' => $this->lead]);
    expect($lead->who())->toBeNull();
    $lead->get('/api/entrance')->assertJsonPath('secondFactor', true);
    $lead->post('/api/sign-in/code', ['code' => '000000'])->assertStatus(422);
    $lead->post('/api/sign-in/code', ['code' => $totp->at(time())])->assertOk();
    expect($lead->who())->toBe($this->world->people['lead']);
});

it('asks whoever accepts an invitation, and whoever was signed in before the rule', function (): void {
    $signedIn = ($this->browser)();
    $signedIn->signIn($this->lead, $this->password)->assertOk()->assertJsonPath('me.must', '');
    $this->world->insert('invitations', [
        'section_id' => $this->section,
        'email' => 'nela.quist@lanternfield.example',
        'role' => 'co_teacher',
        'state' => 'invited',
        'token_hash' => hash('sha256', 'the-link'),
        'sent_at' => now(),
        'expires_at' => now()->addDay(),
        'invited_by' => $this->world->people['coordinator'],
    ]);
    DB::table('schools')
        ->where('id', $this->world->school)
        ->update(['second_factor' => 'staff']);
    $signedIn->get("/api/sections/$this->section")->assertStatus(403);
    $signedIn->get('/api/me')->assertJsonPath('must', 'second_factor');
    $new = ($this->browser)();
    $new->post('/api/invited/accept', [
        'token' => 'the-link',
        'given_name' => 'Nela',
        'family_name' => 'Quist',
        'password' => 'four green boats at sea',
    ])
        ->assertOk()
        ->assertJsonPath('must', 'second_factor');
    $new->get("/api/sections/$this->section")->assertStatus(403);
});

it('takes the password again before a second factor is set up, and ends the sessions without it', function (): void {
    [$here, $elsewhere] = [($this->browser)(), ($this->browser)()];
    $elsewhere->signIn($this->lead, $this->password)->assertOk();
    $here->signIn($this->lead, $this->password)->assertOk();
    $this->travel(11)->minutes();
    $here->post('/api/second-factor')->assertStatus(422)->assertJsonValidationErrors('current');
    $here->post('/api/second-factor', ['current' => 'a guess'])->assertStatus(422);
    $secret = $here
        ->post('/api/second-factor', ['current' => $this->password])
        ->assertOk()
        ->json('secret');
    $here
        ->post('/api/second-factor/confirm', [
            'code' => Vantrel\Core\Accounts\Totp::fromBase32($secret)->at(now()->getTimestamp()),
        ])
        ->assertOk();
    expect($here->who())->toBe($this->world->people['lead'])->and($elsewhere->who())->toBeNull();
});

// 8. Former pupils.

it('gives a teacher no hold on somebody who was in the section once', function (): void {
    $gone = $this->world->student('Uma Rao');
    $this->world->enroll($this->section, $gone, 'student', '2026-08-24', '2026-09-01');
    ($this->as)('lead');
    $this->postJson("/api/sections/$this->section/place/plan", [
        'kind' => 'also',
        'people' => [$gone],
        'to' => $this->section,
    ])->assertStatus(422);
    $this->postJson("/api/sections/$this->section/place/plan", [
        'kind' => 'move',
        'people' => [$gone],
        'to' => $this->section,
    ])->assertStatus(422);
    $this->postJson("/api/sections/$this->section/cards", [
        'person_ids' => [$gone],
        'layout' => 'cards-a4',
        'order' => 'reading',
    ])->assertStatus(422);
    $this->deleteJson("/api/sections/$this->section/people/$gone/pictures")->assertStatus(404);
    // The lead of an archived section reads its roster and prints nothing that works.
    DB::table('sections')
        ->where('id', $this->section)
        ->update(['state' => 'archived', 'archived_on' => '2026-09-02']);
    $this->getJson("/api/sections/$this->section")->assertOk();
    $this->postJson("/api/sections/$this->section/cards", ['layout' => 'cards-a4', 'order' => 'reading'])->assertStatus(
        403,
    );
    ($this->as)('coordinator')
        ->postJson("/api/sections/$this->section/cards", ['layout' => 'cards-a4', 'order' => 'reading'])
        ->assertOk();
});

// 9. What ends, ends: a link with the password, the list of staff with the role.

it('closes a link for a new password once the password has changed', function (): void {
    ($this->browser)()
        ->post('/api/forgotten', ['user_name' => $this->lead])
        ->assertNoContent();
    preg_match('~/new-password#(\S+)~', (string) DB::table('outgoing_messages')->value('text'), $m);
    $this->postJson('/api/new-password/check', ['token' => $m[1]])->assertOk();
    $lead = ($this->browser)();
    $lead->signIn($this->lead, $this->password)->assertOk();
    $lead->post('/api/password', ['password' => 'four green boats at sea', 'current' => $this->password])->assertOk();
    $this->postJson('/api/new-password/check', ['token' => $m[1]])->assertStatus(404);
    $this->postJson('/api/new-password', ['token' => $m[1], 'password' => 'five green boats at sea'])->assertStatus(
        404,
    );
});

it('closes a link for a new password once the address it went to is not theirs any more', function (): void {
    ($this->browser)()
        ->post('/api/forgotten', ['user_name' => $this->lead])
        ->assertNoContent();
    preg_match('~/new-password#(\S+)~', (string) DB::table('outgoing_messages')->value('text'), $m);
    $this->postJson('/api/new-password/check', ['token' => $m[1]])->assertOk();
    DB::table('people')
        ->where('email', $this->lead)
        ->update(['email' => 'petra.new@lanternfield.example']);
    $this->postJson('/api/new-password/check', ['token' => $m[1]])->assertStatus(404);
    $this->postJson('/api/new-password', ['token' => $m[1], 'password' => 'five green boats at sea'])->assertStatus(
        404,
    );
    ($this->browser)()->signIn($this->lead, $this->password)->assertOk();
});

it('lists staff and addresses to those who may ask them into a section today', function (
    string $role,
    int $status,
): void {
    ($this->as)($role)
        ->getJson("/api/schools/{$this->world->school}/staff")
        ->assertStatus($status);
})->with([
    ['past substitute', 403],
    ['substitute', 403],
    ['assistant', 403],
    ['lead', 200],
    ['coordinator', 200],
    ['other coordinator', 403],
]);
