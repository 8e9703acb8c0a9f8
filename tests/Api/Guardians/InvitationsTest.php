<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use App\Roll\SearchIndex;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section, ['grade' => '03']);
    $this->sami = $this->world->student('Sami Haddad', $this->world->otherSection, ['grade' => '03']);
    $this->layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'layla@shoremail.example',
        'language' => 'es',
    ]);
    $this->tie = fn(string $student, string $guardian, array $more = []): string => $this->world->insert(
        'guardianships',
        [
            'student_id' => $student,
            'guardian_id' => $guardian,
            'state' => 'listed',
            ...$more,
        ],
    );
    $this->ties = [($this->tie)($this->noor, $this->layla), ($this->tie)($this->sami, $this->layla)];
    $this->at = "/api/schools/{$this->world->school}/guardians";
    $this->office = fn(string $method, string $path, array $body = []) => $this->actingAs(
        $this->world->as('coordinator'),
    )->json($method, $this->at . $path, $body);
    $this->token = function (): string {
        $text = (string) OutgoingMessage::query()->orderByDesc('id')->value('text');
        preg_match('~/guardian#(\S+)~', $text, $link);

        return $link[1];
    };
    $this->guest = function (string $path, array $body) {
        $this->app['auth']->forgetGuards();

        return $this->postJson("/api/guardian/$path", $body);
    };
});

it('invites a guardian of two by one mail that names the school and given names, and no more', function (): void {
    ($this->office)('POST', '/invite/plan', ['ids' => $this->ties])
        ->assertOk()
        ->assertJson(['guardians' => 1, 'children' => 2, 'leftOut' => ''])
        ->assertJsonPath('languages.Spanish', fn(int $links): bool => $links === 1);
    expect(OutgoingMessage::query()->count())->toBe(0);
    ($this->office)('POST', '/invite', ['ids' => $this->ties])
        ->assertOk()
        ->assertJsonPath('state', 'done')
        ->assertJsonPath('total', 1);
    $mail = OutgoingMessage::query()->sole();
    expect($mail->to_address)
        ->toBe('layla@shoremail.example')
        ->and($mail->text . $mail->html . $mail->subject)
        ->toContain('Noor, Sami')
        ->toContain('le tiene como responsable')
        ->not->toContain('Haddad')
        ->not->toContain('3 Heron');
    $lines = ($this->office)('GET', '?standing=invited')->json('lines');
    expect($lines)
        ->toHaveCount(2)
        ->and($lines[0])
        ->toMatchArray(['student' => 'Noor Haddad', 'guardian' => 'Layla Haddad', 'by' => 'Ines Halloran'])
        ->and($lines[0]['since'])
        ->not->toBeNull();
    // Asked again, everyone is invited already.
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertJsonPath(
        'said',
        'Nobody was invited. Not invited: 2 are invited already.',
    );
    expect(OutgoingMessage::query()->count())
        ->toBe(1)
        ->and(DB::table('guardian_outbox')->count())
        ->toBe(0);
});

it('opens the account and connects both children by the link, and the link no more', function (): void {
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    $token = ($this->token)();
    ($this->guest)('check', ['token' => $token])
        ->assertOk()
        ->assertExactJson([
            'school' => 'Lanternfield Primary',
            'students' => ['Noor', 'Sami'],
            'opens' => true,
            'userName' => 'layla@shoremail.example',
        ]);
    ($this->guest)('accept', ['token' => $token, 'password' => 'short'])->assertStatus(422);
    ($this->guest)('accept', ['token' => $token, 'password' => 'four green boats at sea'])
        ->assertOk()
        ->assertExactJson(['waits' => false, 'signedIn' => true]);
    expect(array_column($this->getJson('/api/home')->json('students'), 'givenName'))
        ->toBe(['Noor', 'Sami'])
        ->and(DB::table('people')->where('id', $this->layla)->value('email_state'))
        ->toBe('confirmed');
    foreach (['check', 'accept', 'decline'] as $again) {
        ($this->guest)($again, ['token' => $token, 'password' => 'four green boats at sea'])->assertStatus(422);
    }
    ($this->guest)('check', ['token' => str_repeat('x', 22)])->assertStatus(422);
    expect(($this->office)('GET', '?standing=connected')->json('lines'))->toHaveCount(3);
});

it('gives the link of one school only the children of that school', function (): void {
    $far = $this->world->insert('people', [
        'school_id' => $this->world->otherSchool,
        'kind' => 'student',
        'given_name' => 'Far',
        'family_name' => 'Haddad',
        'search_name' => 'far haddad',
        'state' => 'active',
    ]);
    $tie = ($this->tie)($far, $this->layla);
    ($this->office)('POST', "/$tie/disconnect")->assertNotFound();
    ($this->office)('POST', '/invite', ['ids' => [...$this->ties, $tie]])->assertJsonPath('total', 1);
    ($this->guest)('check', ['token' => ($this->token)()])->assertJsonPath('students', ['Noor', 'Sami']);
});

it('lets whoever gets it say that the children are not theirs', function (): void {
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    ($this->guest)('decline', ['token' => ($this->token)()])->assertNoContent();
    $lines = ($this->office)('GET', '?standing=refused')->json('lines');
    expect($lines)->toHaveCount(2)->and($lines[0]['by'])->toBe('Layla Haddad');
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertJsonPath(
        'said',
        'Nobody was invited. Not invited: 2 said that the child is not theirs.',
    );
});

it('keeps away whom the school keeps away: no mail, no link, no word of why to others', function (): void {
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    $token = ($this->token)();
    ($this->office)('POST', "/{$this->ties[0]}/restrict", ['why' => 'court order 14'])->assertOk();
    // The link goes on working for the other child alone.
    ($this->guest)('check', ['token' => $token])->assertJsonPath('students', ['Sami']);
    ($this->office)('POST', "/{$this->ties[1]}/restrict", ['why' => 'court order 14'])->assertOk();
    ($this->guest)('check', ['token' => $token])->assertStatus(422);
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertJsonPath(
        'said',
        'Nobody was invited. Not invited: 2 have restricted contact.',
    );
    expect(($this->office)('GET', '?standing=restricted')->json('lines.0.restriction'))->toBe('court order 14');
    expect(DB::table('ledger_entries')->get()->map(fn($e) => $e->title . $e->sentence)->implode(' '))->not->toContain(
        'court',
    );
    ($this->office)('POST', "/{$this->ties[0]}/lift")->assertOk();
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertJsonPath('total', 1);
});

it('sends again to a new address, and the old link ends', function (): void {
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    $old = ($this->token)();
    ($this->office)('POST', "/{$this->ties[0]}/again", ['email' => 'no address'])->assertStatus(422);
    ($this->guest)('check', ['token' => $old])->assertOk();
    ($this->office)('POST', "/{$this->ties[0]}/again", ['email' => 'Layla.New@shoremail.example'])->assertOk();
    expect(OutgoingMessage::query()->orderByDesc('id')->value('to_address'))->toBe('layla.new@shoremail.example');
    ($this->guest)('check', ['token' => $old])->assertStatus(422);
    ($this->guest)('check', ['token' => ($this->token)()])->assertJsonPath('students', ['Noor', 'Sami']);
    // And once more to the same one.
    $second = ($this->token)();
    ($this->office)('POST', "/{$this->ties[0]}/again")->assertOk();
    ($this->guest)('check', ['token' => $second])->assertStatus(422);
    ($this->office)('POST', "/{$this->ties[0]}/withdraw")->assertOk();
    ($this->guest)('check', ['token' => ($this->token)()])->assertStatus(422);
    expect(DB::table('guardianships')->where('guardian_id', $this->layla)->pluck('state')->unique()->all())->toBe([
        'listed',
    ]);
});

it('reminds once after a week, by the clock of the school, then shows who has not answered', function (): void {
    // Whatever hour the tests are run at: a week later it is past the hour of the reminder.
    $this->travelTo(now()->setTime(8, 0));
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    $this->travel(6)->days();
    Artisan::call('vantrel:remind-guardians', ['--now' => true]);
    expect(OutgoingMessage::query()->count())->toBe(1);
    $this->travel(1)->days();
    $this->travelTo(now()->setTime(9, 0));
    Artisan::call('vantrel:remind-guardians');
    expect(OutgoingMessage::query()->count())->toBe(1);
    $this->travelTo(now()->setTime(16, 20));
    Artisan::call('vantrel:remind-guardians');
    Artisan::call('vantrel:remind-guardians');
    expect(OutgoingMessage::query()->count())
        ->toBe(2)
        ->and(OutgoingMessage::query()->orderByDesc('id')->value('subject'))
        ->toStartWith('Recordatorio');
    // The reminder holds the same link.
    ($this->guest)('check', ['token' => ($this->token)()])->assertOk();
    expect(($this->office)('GET', '?standing=unanswered')->json('lines'))->toBe([]);
    $this->travel(8)->days();
    // What was signed in before has run out.
    $this->app['session']->driver()->flush();
    expect(($this->office)('GET', '?standing=unanswered')->json('lines'))->toHaveCount(2);
    $desk = json_encode($this->getJson("/api/schools/{$this->world->school}/desk")->json());
    expect($desk)->toContain('guardians_unanswered');
    // By hand they can be reminded again; a school may want none of it.
    ($this->office)('POST', '/remind', ['ids' => $this->ties])
        ->assertOk()
        ->assertJsonPath('said', 'Reminds 1 guardian who has not answered.');
    ($this->office)('POST', '/remind', [
        'ids' => [
            $this->world->insert('guardianships', [
                'student_id' => $this->noor,
                'guardian_id' => $this->world->people['guardian'],
                'state' => 'listed',
            ]),
        ],
    ])->assertStatus(422);
});

it(
    'connects a teacher who is a guardian by the account they have, and the next list brings nobody twice',
    function (): void {
        $petra = $this->world->people['lead'];
        $mail = (string) DB::table('people')->where('id', $petra)->value('email');
        $listed = $this->world->person($this->world->school, 'guardian', 'Petra Okonjo', ['email' => $mail]);
        $tie = ($this->tie)($this->noor, $listed);
        ($this->office)('POST', '/invite', ['ids' => [$tie]])->assertJsonPath('total', 1);
        $token = ($this->token)();
        ($this->guest)('accept', ['token' => $token, 'password' => 'four green boats at sea'])
            ->assertStatus(422)
            ->assertJsonPath(
                'detail',
                'There is an account with this address already. Sign in with it, then follow the link again.',
            );
        $this->actingAs($this->world->as('other teacher'))
            ->postJson('/api/guardian/connect', ['token' => $token])
            ->assertStatus(422);
        $this->actingAs($this->world->as('lead'))
            ->postJson('/api/guardian/connect', ['token' => $token])
            ->assertOk();
        expect($this->getJson('/api/home')->json('students.0.givenName'))
            ->toBe('Noor')
            ->and($this->getJson('/api/me')->json('children'))
            ->toBe(1)
            ->and(DB::table('guardianships')->where('id', $tie)->value('guardian_id'))
            ->toBe($petra);
        $this->actingAs($this->world->as('student'))
            ->postJson('/api/guardian/connect', ['token' => $token])
            ->assertForbidden();
        // The next list names the teacher as a guardian, as before.
        $list = UploadedFile::fake()->createWithContent(
            'list.csv',
            "Name,Grade,Homeroom,Guardian,Guardian email\nNoor Haddad,3,3 Heron,Petra Okonjo,$mail\n",
        );
        $this->actingAs($this->world->as('coordinator'));
        $intake = $this->post("/api/schools/{$this->world->school}/intakes", ['files' => [$list]])
            ->assertOk()
            ->json('id');
        expect($this->getJson("/api/intakes/$intake/rows")->json('rows.0.verdict'))
            ->toBe('same')
            ->and(DB::table('guardianships')->where('student_id', $this->noor)->where('guardian_id', $listed)->exists())
            ->toBeFalse();
    },
);

it('asks a person of the school first where the school wants it so', function (): void {
    DB::table('schools')
        ->where('id', $this->world->school)
        ->update(['guardians_in' => 'check']);
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    ($this->guest)('accept', ['token' => ($this->token)(), 'password' => 'four green boats at sea'])->assertExactJson([
        'waits' => true,
        'signedIn' => true,
    ]);
    expect($this->getJson('/api/home')->json())->toMatchArray(['students' => [], 'waiting' => ['Noor', 'Sami']]);
    $claims = $this->actingAs($this->world->as('coordinator'))
        ->getJson("/api/schools/{$this->world->school}/claims")
        ->json('claims');
    expect($claims)->toHaveCount(2)->and($claims[0]['clear'])->toBeTrue();
    $this->postJson("/api/schools/{$this->world->school}/claims/approve", ['ids' => array_column($claims, 'id')])
        ->assertOk()
        ->assertJsonPath('said', '2 guardians are connected.');
    $this->postJson("/api/schools/{$this->world->school}/claims/approve", [
        'ids' => array_column($claims, 'id'),
    ])->assertStatus(422);
});

it('keeps a parent’s consent, and shows it', function (): void {
    ($this->office)('POST', "/{$this->ties[0]}/consent", ['on' => '2026-02-30', 'way' => 'form'])->assertStatus(422);
    ($this->office)('POST', "/{$this->ties[0]}/consent", ['on' => '2026-08-30', 'way' => 'form'])->assertOk();
    expect(collect(($this->office)('GET', '')->json('lines'))->firstWhere('id', $this->ties[0]))->toMatchArray([
        'consentOn' => '2026-08-30',
        'consentWay' => 'signed form',
    ]);
});

it('finds guardians by section, grade, name and standing, page by page', function (): void {
    app(SearchIndex::class)->all();
    expect(($this->office)('GET', "?section={$this->world->otherSection}")->json('lines'))
        ->toHaveCount(1)
        ->and(($this->office)('GET', '?q=hadad lay')->json('lines'))
        ->toHaveCount(2)
        ->and(($this->office)('GET', '?q=noor')->json('lines'))
        ->toHaveCount(1)
        ->and(($this->office)('GET', '?q=layla@shoremail.example')->json('lines'))
        ->toHaveCount(2)
        ->and(($this->office)('GET', '?grade=04')->json('lines'))
        ->toBe([]);
    $counts = ($this->office)('GET', '/counts')->json();
    expect($counts['all'])
        ->toBe(3)
        ->and(array_column($counts['standings'], 'count', 'standing'))
        ->toBe([
            'listed' => 2,
            'invited' => 0,
            'unanswered' => 0,
            'awaiting' => 0,
            'connected' => 1,
            'refused' => 0,
            'ended' => 0,
            'restricted' => 0,
            'no_address' => 0,
        ]);
    ($this->office)('GET', '?standing=nobody')->assertStatus(422);
    ($this->office)('POST', '/invite', ['ids' => []])->assertStatus(422);
    ($this->office)('POST', '/invite', ['section' => $this->world->otherSection])->assertJsonPath('total', 1);
    expect(DB::table('guardianships')->where('id', $this->ties[0])->value('state'))->toBe('listed');
});

it('opens the account of a guardian whose record is kept at another school of the district', function (): void {
    $far = $this->world->person($this->world->otherSchool, 'guardian', 'Omar Haddad', [
        'email' => 'omar@shoremail.example',
    ]);
    $tie = ($this->tie)($this->noor, $far);
    ($this->office)('POST', '/invite', ['ids' => [$tie]])->assertJsonPath('total', 1);
    ($this->guest)('accept', ['token' => ($this->token)(), 'password' => 'four green boats at sea'])->assertOk();
    expect(array_column($this->getJson('/api/home')->json('students'), 'givenName'))
        ->toBe(['Noor'])
        ->and(DB::table('people')->where('id', $far)->value('email_state'))
        ->toBe('confirmed');
});

it('is undone with its link, as long as nobody has followed it', function (): void {
    ($this->office)('POST', '/invite', ['ids' => $this->ties])->assertOk();
    $token = ($this->token)();
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(DB::table('guardianships')->where('guardian_id', $this->layla)->pluck('state')->unique()->all())
        ->toBe(['listed'])
        ->and(DB::table('guardian_invitations')->count())
        ->toBe(0);
    ($this->guest)('check', ['token' => $token])->assertStatus(422);
});

it('connects the clear ones also where one of them cannot be', function (): void {
    DB::table('schools')
        ->where('id', $this->world->school)
        ->update(['guardians_in' => 'check']);
    $claim = fn(string $student, string $guardian, string $mail): string => $this->world->insert('guardian_claims', [
        'student_id' => $student,
        'suggested_id' => $guardian,
        'given_name' => 'Layla',
        'family_name' => 'Haddad',
        'email' => $mail,
        'state' => 'waiting',
        'made_at' => now(),
    ]);
    $other = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'taken@shoremail.example',
    ]);
    $third = $this->world->student('Kim Haddad', $this->world->section);
    ($this->tie)($third, $other);
    // Somebody else signs in with that address.
    $this->world->signIn($this->world->people['lead'], 'taken@shoremail.example', password: 'lantern harbor morning');
    $ids = [
        $claim($this->noor, $this->layla, 'layla@shoremail.example'),
        $claim($third, $other, 'taken@shoremail.example'),
    ];
    $said = $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/schools/{$this->world->school}/claims/approve", ['ids' => $ids])
        ->assertOk()
        ->json('said');
    expect($said)->toStartWith('1 guardian is connected. Not connected: Layla Haddad: Somebody signs in with');
});
