<?php

declare(strict_types=1);

use App\Ledger\WriteGuard;
use App\Models\Person;
use App\StandIns\OpenIdKeys;
use Firebase\JWT\JWT;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Log;
use Tests\Support\Browser;
use Tests\Support\World;

/**
 * Played through the HTTP API, as a hostile student, a classmate, another school's coordinator and an anonymous visitor
 * would.
 */
beforeEach(function (): void {
    $this->world = World::make();
    $this->section = $this->world->section;
    $this->lead = 'petra.okonjo@lanternfield.example';
    $this->password = 'lantern harbor morning';
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->browser = fn(): Browser => new Browser($this);
    $this->ask = fn(Browser $by, array $more = []) => $by->post('/api/join/ask', [
        'code' => $this->world->code,
        'given_name' => 'Wilhelmina',
        'family_name' => 'Seabright',
        'birth_date' => '2018-07-07',
        'password' => 'green boat stone',
        ...$more,
    ]);
    $this->approve = function (string $role, ?string $as): void {
        $id = DB::table('join_requests')->orderByDesc('id')->value('id');
        ($this->as)($role)
            ->postJson("/api/sections/$this->section/requests/$id/approve", $as === null ? [] : ['as' => $as])
            ->assertOk();
        auth()->logout();
        $this->app['auth']->forgetGuards();
        $this->flushSession();
    };
    $this->undo = function (string $action): void {
        $entry = DB::table('ledger_entries')->where('action', $action)->orderByDesc('seq')->value('id');
        ($this->as)('coordinator')
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk();
        auth()->logout();
        $this->app['auth']->forgetGuards();
        $this->flushSession();
    };
    $this->csv = fn(string $role, string $csv, ?string $school = null): array => ($this->as)($role)
        ->post(
            '/api/schools/' . ($school ?? $this->world->school) . '/imports',
            ['files' => [UploadedFile::fake()->createWithContent('list.csv', $csv)]],
            ['Accept' => 'application/json'],
        )
        ->assertOk()
        ->json();
    $this->show = fn(string $id): array => $this->getJson("/api/imports/$id")
        ->assertOk()
        ->json();
    $this->apply = fn(string $id) => $this->postJson("/api/imports/$id/apply", [
        'fingerprint' => ($this->show)($id)['fingerprint'],
        'password' => $this->password,
    ]);
});

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

// 2. A list writes across schools.

it('answers a list of names with nothing of another school’s child', function (): void {
    $secret = ['2018-02-11', '020001', 'helene@shoremail.example', $this->world->people['student']];
    foreach (
        [
            "Name,Grade\nWilhelmina Seabright,6\n",
            "Name\nWilhelmina Seabright\n",
            "Name,Guardian email\nWilhelmina Seabright,helene@shoremail.example\n",
        ]
        as $list
    ) {
        $id = ($this->csv)('other coordinator', $list, $this->world->otherSchool)['id'];
        $answers = json_encode([($this->show)($id), $this->getJson("/api/imports/$id/rows")->json()]);
        foreach (array_diff($secret, str_contains($list, 'helene') ? ['helene@shoremail.example'] : []) as $private) {
            expect($answers)->not->toContain($private);
        }
        expect(($this->show)($id)['questions'])
            ->toBe([])
            ->and(($this->show)($id)['verdicts']['new'])
            ->toBe(1);
    }
});

it('writes nothing of another school by an account key, a guardian’s address or an answer made up', function (): void {
    $student = $this->world->people['student'];
    $mine = fn(): array => [
        DB::table('people')->where('school_id', $this->world->school)->orderBy('id')->get()->toArray(),
        DB::table('guardianships')->where('student_id', $student)->get()->toArray(),
        DB::table('enrollments')->where('person_id', $student)->get()->toArray(),
    ];
    $before = $mine();
    $id = ($this->csv)(
        'other coordinator',
        "Account key,Name,Guardian,Guardian email\n$student,Wilhelmina Seabright,Hélène Marchetti,eve@evil.example\n",
        $this->world->otherSchool,
    )['id'];
    ($this->apply)($id);
    $id = ($this->csv)(
        'other coordinator',
        "Name,Birth date,Student number,Grade\nWilhelmina Seabright,2018-02-11,020001,6\n",
        $this->world->otherSchool,
    )['id'];
    $question = ($this->show)($id)['questions'][0];
    expect($question['text'])
        ->toBe('Is row 2 a student of Lanternfield Primary?')
        ->and($question['evidence'])
        ->toBe([])
        ->and($question['probability'])
        ->toBeNull()
        ->and(json_encode($question))
        ->not->toContain('3 Heron');
    foreach (["is:$student:transfer", "is:$student:also", "is:$student:leave", "is:$student"] as $forged) {
        $this->postJson("/api/imports/$id/answers", ['answers' => [$question['id'] => $forged]]);
        ($this->apply)($id);
        expect($mine())->toEqual($before);
    }
    expect(DB::table('outgoing_messages')->count())
        ->toBe(0)
        ->and(DB::table('ledger_schools')->where('school_id', $this->world->school)->count())
        ->toBe(0);
});

it('shows a coordinator no child of another school through the guardian both share', function (): void {
    $guardian = $this->world->people['guardian'];
    $brother = $this->world->person($this->world->otherSchool, 'student', 'Corin Marchetti');
    $this->world->insert('guardianships', [
        'student_id' => $brother,
        'guardian_id' => $guardian,
        'state' => 'connected',
    ]);
    $sheet = fn(string $role) => ($this->as)($role)
        ->getJson("/api/people/$guardian")
        ->assertOk()
        ->json('relatives');
    expect(array_column($sheet('coordinator'), 'name'))
        ->toContain('Wilhelmina Seabright')
        ->not->toContain('Corin Marchetti')
        ->toContain('A student of Copperbrook Middle')
        ->and(array_column($sheet('coordinator'), 'id'))
        ->not->toContain($brother);
});

it('does not bring back another school’s departed staff by a list', function (): void {
    $gone = $this->world->staff($this->world->school, 'Vera Loomis');
    DB::table('people')
        ->where('id', $gone)
        ->update(['state' => 'left']);
    $id = ($this->csv)(
        'other coordinator',
        "Name,Email,Role\nVera Loomis,vera.loomis@lanternfield.example,teacher\n",
        $this->world->otherSchool,
    )['id'];
    ($this->apply)($id);
    expect(DB::table('people')->where('id', $gone)->value('state'))
        ->toBe('left')
        ->and(DB::table('people')->where('email', 'vera.loomis@lanternfield.example')->count())
        ->toBe(1);
    ($this->browser)()->signIn('vera.loomis@lanternfield.example', $this->password)->assertStatus(422);
});

// 3 and 5. Single sign-on and addresses.

/** The provider's answer, with the claims of whoever attacks. */
function claims(object $test, Browser $by, array $claims): void
{
    config([
        'vantrel.stand_ins' => true,
        'vantrel.openid.issuer' => 'http://school.example/stand-in/openid',
        'vantrel.openid.client_secret' => 'a secret',
        'app.url' => 'http://school.example',
    ]);
    Cache::flush();
    $key = OpenIdKeys::load()->newest();
    Http::swap(new Illuminate\Http\Client\Factory());
    $token = '';
    Http::fake(function ($request) use (&$token) {
        return match (true) {
            str_contains($request->url(), 'openid-configuration') => Http::response([
                'issuer' => 'http://school.example/stand-in/openid',
                'authorization_endpoint' => 'http://school.example/a',
                'token_endpoint' => 'http://school.example/token',
                'jwks_uri' => 'http://school.example/keys',
            ]),
            str_contains($request->url(), '/keys') => Http::response(OpenIdKeys::load()->public()),
            default => Http::response(['id_token' => $token]),
        };
    });
    $by->get('/school-sign-on');
    $flow = $by->session()['single_sign_on'];
    $token = JWT::encode(
        [
            'iss' => 'http://school.example/stand-in/openid',
            'aud' => 'vantrel',
            'iat' => time(),
            'exp' => time() + 300,
            'nonce' => $flow['nonce'],
            'email_verified' => true,
            ...$claims,
        ],
        $key['private'],
        'RS256',
        $key['kid'],
    );
    $by->get('/school-sign-on/back?code=c&state=' . $flow['state'])->assertRedirect('/');
}

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

// 11. Smaller.

it('tells a right birth date of an account in use from a wrong one in no way', function (): void {
    $id = $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04']);
    $newcomer = [
        'code' => $this->world->code,
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
        'password' => 'green boat stone',
    ];
    $key = $this->postJson('/api/join/names', $newcomer)->json('names.0.key');
    DB::table('sign_ins')
        ->where('person_id', $id)
        ->update(['last_signed_in_at' => now()]);
    $this->postJson('/api/join/names', $newcomer)->assertJsonPath('names', []);
    $right = $this->postJson('/api/join/claim', [...$newcomer, 'key' => $key, 'proof' => '2012-05-04']);
    $wrong = $this->postJson('/api/join/claim', [...$newcomer, 'key' => $key, 'proof' => '2012-05-05']);
    expect($right->getStatusCode())
        ->toBe($wrong->getStatusCode())
        ->and($right->getContent())
        ->toBe($wrong->getContent());
});

it('shows a teacher nothing of how near a birth date comes', function (): void {
    $this->world->student('Marlo Quillfeather', $this->world->otherSection, [
        'birth_date' => '2012-05-04',
        'number' => '020777',
    ]);
    $seen = [];
    foreach (['2012-05-04', '2012-05-05', '1999-12-31'] as $guess) {
        ($this->ask)(($this->browser)(), [
            'given_name' => 'Marlo',
            'family_name' => 'Quillfeather',
            'birth_date' => $guess,
        ]);
        $request = ($this->as)('lead')
            ->getJson("/api/sections/$this->section/requests")
            ->json('requests.0');
        $seen[] = $request['mayBe'];
        $this->postJson("/api/sections/$this->section/requests/{$request['id']}/refuse");
        auth()->logout();
    }
    expect($seen[1])
        ->toEqual($seen[0])
        ->and($seen[2])
        ->toEqual($seen[0])
        ->and(json_encode($seen[0]))
        ->not->toContain('birth')
        ->not->toContain('number')
        ->and($seen[0][0]['name'])
        ->toBe('Marlo Q.');
    ($this->ask)(($this->browser)(), [
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
        'birth_date' => '2012-05-05',
    ]);
    $full = ($this->as)('coordinator')
        ->getJson("/api/sections/$this->section/requests")
        ->json('requests.0.mayBe.0.evidence');
    expect(array_column($full, 'field'))->toContain('birth date');
});

it('lets what a page asks by itself keep no session open', function (): void {
    $left = ($this->browser)();
    $left->signIn($this->lead, $this->password);
    for ($i = 0; $i < 13; $i++) {
        $this->travel(10)->minutes();
        $this->withHeaders(['X-Vantrel-By-Itself' => '1']);
        $left->get('/api/me');
    }
    $this->flushHeaders();
    expect($left->who())->toBeNull();
    $used = ($this->browser)();
    $used->signIn($this->lead, $this->password);
    for ($i = 0; $i < 13; $i++) {
        $this->travel(10)->minutes();
        $used->get('/api/me')->assertOk();
    }
});

it('leaves whoever is signed in signed in when a link to a card is followed', function (): void {
    $this->world->badge($this->world->people['student'], 'a-card');
    $lead = ($this->browser)();
    $lead->signIn($this->lead, $this->password);
    expect($lead->get('/b/a-card')->headers->get('Location'))
        ->toBe('/b#a-card')
        ->and($lead->who())
        ->toBe($this->world->people['lead']);
    $lead
        ->post('/api/sign-in/card', ['token' => 'a-card'])
        ->assertJson(['needs' => 'instead', 'me' => ['name' => 'Petra Okonjo']]);
    expect($lead->who())->toBe($this->world->people['lead']);
    $lead->post('/api/sign-in/card', ['token' => 'a-card', 'instead' => true])->assertJsonPath('needs', '');
    expect($lead->who())->toBe($this->world->people['student']);
    $lead->post('/api/sign-in/card', ['token' => 'a-card'])->assertJsonPath('needs', '');
});

it('answers an id that is none with 404, and notes no value anybody typed', function (string $id): void {
    $notes = [];
    Log::listen(function ($note) use (&$notes): void {
        $notes[] = $note->message . json_encode($note->context);
    });
    ($this->as)('coordinator');
    foreach (
        [
            "/api/people/$id",
            "/api/schools/$id/desk",
            "/api/sections/$id",
            "/api/imports/$id",
            "/api/ledger/$id",
            "/api/schools/{$this->world->school}/look-alikes/$id/$id",
            "/api/messages/$id",
        ]
        as $uri
    ) {
        $this->getJson($uri)->assertStatus(404);
    }
    $this->postJson("/api/sections/$this->section/place/plan", ['kind' => 'remove', 'people' => [$id]])->assertStatus(
        422,
    );
    $this->postJson("/api/sections/$this->section/lead", ['person' => $id])->assertStatus(422);
    expect($notes)->toBe([]);
})->with(['ünïcödé', str_repeat('ä', 26), '%00', "01K3CNQ0000000000000000'--", str_repeat('I', 26), '🙂']);

it('notes the statement that failed and not what was in it', function (): void {
    $notes = [];
    Log::listen(function ($note) use (&$notes): void {
        $notes[] = $note->message . json_encode($note->context);
    });
    report(
        new Illuminate\Database\QueryException(
            'mariadb',
            'select * from people where email = ?',
            ['private@shoremail.example'],
            new PDOException("Duplicate entry 'private@shoremail.example'"),
        ),
    );
    expect($notes)->toHaveCount(1)->and($notes[0])->toContain('email = ?')->not->toContain('private@shoremail');
});

it('takes as long, and sends as few, whether an address is known or not', function (): void {
    $real = Illuminate\Support\Facades\Queue::getFacadeRoot();
    $statements = function (string $typed): int {
        Illuminate\Support\Facades\Queue::fake();
        DB::flushQueryLog();
        DB::enableQueryLog();
        ($this->browser)()
            ->post('/api/forgotten', ['user_name' => $typed])
            ->assertNoContent();

        return count(DB::getQueryLog());
    };
    expect($statements($this->lead))->toBe($statements('nobody@lanternfield.example'));
    // By user name and by address: one count for one person.
    Illuminate\Support\Facades\Queue::swap($real);
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['email' => 'petra@lanternfield.example']);
    foreach (
        [
            $this->lead,
            'petra@lanternfield.example',
            'PETRA@lanternfield.example ',
            $this->lead,
            'petra@lanternfield.example',
            $this->lead,
            'petra@lanternfield.example',
        ]
        as $typed
    ) {
        App\Accounts\Jobs\SendReset::dispatchSync(Vantrel\Core\Accounts\UserNames::fold($typed));
    }
    expect(DB::table('outgoing_messages')->count())->toBe(5);
});

it('says nothing that a request says of its host', function (): void {
    $this->world->badge($this->world->people['student'], 'a-card');
    foreach (['/b/a-card', '/b/none', '/school-sign-on', '/school-sign-on/back?state=x', '/api/home', '/'] as $uri) {
        $response = $this->get($uri, ['Host' => 'evil.example', 'X-Forwarded-Host' => 'evil.example']);
        expect((string) $response->headers->get('Location') . $response->getContent())->not->toContain('evil.example');
    }
    config(['app.url' => 'https://school.example']);
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    expect(DB::table('outgoing_messages')->value('text'))->toContain('https://school.example/new-password#');
});

it('keeps secrets out of the addresses that servers write down', function (): void {
    foreach (Illuminate\Support\Facades\Route::getRoutes()->getRoutes() as $route) {
        if (str_starts_with($route->uri(), 'api/')) {
            expect($route->parameterNames())->not->toContain('token');
        }
    }
    $this->world->badge($this->world->people['student'], 'a-card');
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    $text = (string) DB::table('outgoing_messages')->value('text');
    preg_match('~(https?://\S+)~', $text, $m);
    expect(parse_url($m[1], PHP_URL_PATH))
        ->toBe('/new-password')
        ->and((string) parse_url($m[1], PHP_URL_FRAGMENT))
        ->toMatch('/^[\w-]{22}$/');
});

it('shows the links of mails to nobody but their receivers, once it is no demo', function (): void {
    ($this->browser)()->post('/api/forgotten', ['user_name' => $this->lead]);
    $id = DB::table('outgoing_messages')->value('id');
    config(['vantrel.stand_ins' => false]);
    $text = ($this->as)('coordinator')
        ->getJson("/api/messages/$id")
        ->json('text');
    expect($text)->toContain('/new-password#…')->not->toMatch('/#[\w-]{16,}/');
    expect(json_encode($this->getJson("/api/schools/{$this->world->school}/messages")->json()))->not->toMatch(
        '/#[\w-]{16,}/',
    );
});

// 12.

it('hands a substitute no lead', function (): void {
    foreach (['lead', 'coordinator'] as $role) {
        ($this->as)($role)
            ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['substitute']])
            ->assertStatus(422)
            ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'substitute until'));
    }
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/lead", ['person' => $this->world->people['co_teacher']])
        ->assertOk();
});

// 4. Limits slow down, and shut nobody out: in one process here, with a real server and many at once in LimitsTest.

it('lets no wrong tries elsewhere keep somebody out of a device they have signed in on', function (): void {
    $own = ($this->browser)();
    $own->signIn($this->lead, $this->password)->assertOk();
    $own->post('/api/sign-out');
    $attacker = ($this->browser)();
    for ($i = 0; $i < 12; $i++) {
        $attacker->signIn($this->lead, "guess $i");
    }
    $attacker->signIn($this->lead, $this->password)->assertStatus(429);
    $own->signIn($this->lead, $this->password)->assertOk();
    // On the known device too there is an end to guessing.
    $own->post('/api/sign-out');
    for ($i = 0; $i < 10; $i++) {
        $own->signIn($this->lead, "guess $i")->assertStatus(422);
    }
    $own->signIn($this->lead, $this->password)->assertStatus(429);
});

it('empties a door that somebody has filled, and a new code has a door of its own', function (): void {
    foreach (range(1, 200) as $i) {
        $this->world->insert('join_requests', [
            'section_id' => $this->section,
            'join_code_id' => DB::table('join_codes')->value('id'),
            'state' => 'waiting',
            'cause' => 'newcomer',
            'given_name' => "A$i",
            'family_name' => 'B',
            'made_at' => now(),
        ]);
    }
    ($this->ask)(($this->browser)())->assertStatus(422);
    $code = ($this->as)('lead')
        ->postJson("/api/sections/$this->section/code")
        ->assertOk()
        ->json('written');
    auth()->logout();
    ($this->ask)(($this->browser)(), ['code' => $code])->assertOk();
    ($this->as)('substitute')
        ->postJson("/api/sections/$this->section/requests/refuse-all")
        ->assertOk()
        ->assertJsonPath('requests', []);
    expect(DB::table('join_requests')->where('state', 'waiting')->count())
        ->toBe(0)
        ->and(DB::table('ledger_entries')->where('action', 'turn-away')->count())
        ->toBe(1);
    ($this->undo)('turn-away');
    expect(DB::table('join_requests')->where('state', 'waiting')->count())->toBe(201);
});

it('runs no stand-in in production, whatever the settings say', function (): void {
    $value = fn(string $environment): mixed => trim(
        (string) shell_exec(
            'cd ' .
                escapeshellarg(base_path()) .
                " && APP_ENV=$environment VANTREL_STAND_INS=true php -r 'require \"vendor/autoload.php\"; " .
                "\$c = require \"config/vantrel.php\"; echo json_encode(\$c[\"stand_ins\"]);'",
        ),
    );
    expect($value('production'))->toBe('false')->and($value('demo'))->toBe('true');
});

// The boundary: nothing but the ledger writes tables of plans, however it is tried.

it('throws on every write outside the ledger', function (Closure $write): void {
    WriteGuard::arm();
    try {
        expect(fn() => $write($this->world->as('student')))->toThrow(LogicException::class, 'Only the ledger');
    } finally {
        WriteGuard::disarm();
    }
})->with([
    'a model updated' => [fn(Person $p) => $p->update(['grade' => '05'])],
    'a model filled and saved' => [fn(Person $p) => $p->forceFill(['grade' => '05'])->save()],
    'a model saved quietly' => [fn(Person $p) => $p->forceFill(['grade' => '05'])->saveQuietly()],
    'a model deleted' => [fn(Person $p) => $p->delete()],
    'a model made' => [fn(Person $p) => Person::query()->create(['id' => 'x'])],
    'a query of a model' => [
        fn(Person $p) => Person::query()
            ->whereKey($p->id)
            ->update(['grade' => '05']),
    ],
    'counting up' => [fn(Person $p) => Person::query()->whereKey($p->id)->increment('version')],
    'a builder over several lines' => [
        fn(Person $p) => DB::table('people')
            ->where('id', $p->id)
            ->update(['grade' => '05']),
    ],
    'a builder with an alias' => [
        fn(Person $p) => DB::table('people as p')
            ->where('p.id', $p->id)
            ->update(['p.grade' => '05']),
    ],
    'an upsert' => [
        fn(Person $p) => DB::table('sign_ins')->upsert(
            [['id' => 'x', 'person_id' => $p->id, 'user_name' => 'x']],
            ['id'],
        ),
    ],
    'a raw update' => [fn(Person $p) => DB::update('UPDATE people SET grade = ? WHERE id = ?', ['05', $p->id])],
    'a raw update of two tables' => [
        fn(Person $p) => DB::statement('update sessions s join `people` p on p.id = s.user_id set p.grade = 5'),
    ],
    'a statement in capitals with a comment' => [
        fn(Person $p) => DB::unprepared('/* harmless */ DELETE FROM `enrollments` WHERE 1'),
    ],
    'another connection' => [
        fn(Person $p) => DB::connection('progress')
            ->table('schools')
            ->update(['name' => 'x']),
    ],
    'a truncation' => [fn(Person $p) => DB::statement('TRUNCATE TABLE badges')],
    'replacing' => [fn(Person $p) => DB::statement("REPLACE INTO join_codes (id) VALUES ('x')")],
]);

it('lets everything else write what is its own', function (): void {
    WriteGuard::arm();
    try {
        DB::table('outgoing_messages')->where('to_address', 'people')->delete();
        DB::table('imports')
            ->whereIn('id', fn($q) => $q->select('id')->from('people'))
            ->update(['title' => 'enrollments']);
        expect(WriteGuard::written('select * from people for update'))
            ->toBeNull()
            ->and(WriteGuard::written('insert into credential_uses (person_id) values (?)'))
            ->toBeNull();
    } finally {
        WriteGuard::disarm();
    }
});
