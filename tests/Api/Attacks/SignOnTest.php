<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */

beforeEach(fn() => readyForAttacks($this));

it('takes a verified address for the one account that has it, letter by letter', function (string $address): void {
    $stranger = ($this->browser)();
    claims($this, $stranger, ['sub' => 'stranger', 'email' => $address]);
    expect($stranger->who())
        ->toBeNull()
        ->and(DB::table('identities')->count())
        ->toBe(0);
})->with([
    'an accent' => 'inés.halloran@lanternfield.example',
    'wide letters' => "\u{FF49}nes.halloran@lanternfield.example",
    'a dotless i' => "\u{0131}nes.halloran@lanternfield.example",
    'a Kelvin sign' => "marten.vale@lanternfield.example\u{212A}",
    'a long s' => "ine\u{017F}.halloran@lanternfield.example",
    'a soft hyphen' => "ines\u{00AD}.halloran@lanternfield.example",
    'a zero width space' => "ines.halloran@lanternfield.example\u{200B}",
]);

it('still takes it in capitals, and composed or not', function (): void {
    $ines = ($this->browser)();
    claims($this, $ines, ['sub' => 'ines', 'email' => ' Ines.Halloran@Lanternfield.example']);
    expect($ines->who())->toBe($this->world->people['coordinator']);
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['email' => 'zoë.vale@lanternfield.example']);
    $zoe = ($this->browser)();
    claims($this, $zoe, ['sub' => 'zoe', 'email' => "ZOE\u{0308}.vale@lanternfield.example"]);
    expect($zoe->who())->toBe($this->world->people['lead']);
});

it('gives a recycled address no account that was another’s', function (): void {
    $first = ($this->browser)();
    claims($this, $first, ['sub' => 'first', 'email' => $this->lead]);
    expect($first->who())->toBe($this->world->people['lead']);
    $second = ($this->browser)();
    claims($this, $second, ['sub' => 'second', 'email' => $this->lead]);
    expect($second->who())
        ->toBeNull()
        ->and(DB::table('identities')->count())
        ->toBe(1);
    $second
        ->get('/api/entrance')
        ->assertJsonPath(
            'note',
            'The account here with that address belongs to another sign-on of the school. Ask the ' .
                'coordinator to end that one first.',
        );
});

it('ends a session opened by the school’s sign-on with it, and lets that sign-on in no more', function (): void {
    $lead = $this->world->people['lead'];
    $petra = ($this->browser)();
    claims($this, $petra, ['sub' => 'petra', 'email' => $this->lead]);
    expect($petra->who())->toBe($lead);
    $identity = DB::table('identities')->value('id');
    ($this->as)('coordinator')
        ->postJson("/api/people/$lead/credentials/end", ['kind' => 'sign_on', 'id' => $identity])
        ->assertOk();
    auth()->logout();
    expect($petra->who())->toBeNull();
    claims($this, $petra, ['sub' => 'petra', 'email' => $this->lead]);
    expect($petra->who())->toBeNull();
    $petra->get('/api/entrance')->assertJsonPath('note', 'This sign-on was ended here. Ask the coordinator.');
    // The first sign-in stands in the ledger, and its undo ends it as well.
    $marten = ($this->browser)();
    claims($this, $marten, ['sub' => 'marten', 'email' => 'marten.vale@lanternfield.example']);
    ($this->undo)('sign-on');
    expect($marten->who())->toBeNull();
});

it(
    'believes no address that nobody has confirmed: at sign-on, for a forgotten password, for an invitation',
    function (): void {
        ($this->ask)(($this->browser)(), [
            'given_name' => 'Sly',
            'family_name' => 'Fox',
            'birth_date' => '2012-01-01',
            'email' => 'victim@lanternfield.example',
        ]);
        ($this->approve)('lead', null);
        $sly = DB::table('people')->where('given_name', 'Sly')->first();
        expect($sly->email)
            ->toBe('victim@lanternfield.example')
            ->and($sly->email_state)
            ->toBe('claimed')
            ->and($sly->email_by)
            ->toBe('door');
        $victim = ($this->browser)();
        claims($this, $victim, ['sub' => 'victim', 'email' => 'victim@lanternfield.example']);
        expect($victim->who())->toBeNull();
        DB::table('people')
            ->where('id', $this->world->people['lead'])
            ->update(['email_state' => 'claimed']);
        ($this->browser)()
            ->post('/api/forgotten', ['user_name' => $this->lead])
            ->assertNoContent();
        expect(DB::table('password_resets')->count())
            ->toBe(0)
            ->and(DB::table('outgoing_messages')->count())
            ->toBe(0);
        $this->world->insert('invitations', [
            'section_id' => $this->world->otherSection,
            'email' => $this->lead,
            'role' => 'co_teacher',
            'state' => 'invited',
            'token_hash' => hash('sha256', 'x'),
            'sent_at' => now(),
            'expires_at' => now()->addDay(),
            'invited_by' => $this->world->people['coordinator'],
        ]);
        ($this->as)('lead')->getJson('/api/invitations')->assertJsonPath('invitations', []);
    },
);

// 6. A password chosen before the address is confirmed.

it('lets the owner of an address choose the password, not whoever typed the address', function (): void {
    DB::table('join_codes')->update(['who' => 'domain']);
    DB::table('schools')->update(['under_13' => 'allow']);
    $attacker = ($this->browser)();
    ($this->ask)($attacker, [
        'given_name' => 'Vic',
        'family_name' => 'Tim',
        'birth_date' => '2010-01-01',
        'email' => 'vic.tim@lanternfield.example',
        'password' => 'attackers own words',
    ])->assertJsonPath('state', 'mail');
    preg_match('~/confirm#(\S+)~', (string) DB::table('outgoing_messages')->value('text'), $m);
    $victim = ($this->browser)();
    $victim->post('/api/join/confirm', ['token' => $m[1]])->assertStatus(422);
    $victim
        ->post('/api/join/confirm', ['token' => $m[1], 'password' => 'victims own words'])
        ->assertOk()
        ->assertJsonPath('userName', 'vic.tim');
    $attacker->post('/api/join/asked')->assertJson(['state' => 'approved', 'userName' => '', 'how' => 'mail']);
    expect($attacker->who())->toBeNull()->and($victim->who())->not->toBeNull();
    ($this->browser)()->signIn('vic.tim', 'attackers own words')->assertStatus(422);
    ($this->browser)()->signIn('vic.tim', 'victims own words')->assertOk();
    expect(DB::table('people')->where('given_name', 'Vic')->value('email_state'))->toBe('confirmed');
});
