<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(fn() => readyAtTheDoor($this));

it('says at the door what is asked there, by the school’s rules and the code’s', function (): void {
    ($this->rules)(['newcomer_check' => 'none', 'under_13' => 'allow']);
    $this->postJson('/api/join/door', ['code' => $this->code])
        ->assertOk()
        ->assertExactJson([
            'section' => '3 Heron',
            'school' => 'Lanternfield Primary',
            'who' => 'approval',
            'looked' => false,
            'birthDate' => false,
            'number' => false,
            'mail' => 'no',
            'domains' => [],
            'password' => true,
        ]);
    ($this->rules)(['newcomer_check' => 'number', 'newcomer_mail' => 1, 'under_13' => 'approve']);
    $this->postJson('/api/join/door', ['code' => $this->code])->assertJson([
        'birthDate' => true,
        'number' => true,
        'mail' => 'optional',
    ]);
    ($this->terms)(['who' => 'domain']);
    $this->postJson('/api/join/door', ['code' => $this->code])->assertJson([
        'mail' => 'required',
        'domains' => ['lanternfield.example'],
        'password' => false,
    ]);
});

it('shows somebody at the door only display names that fit what they typed', function (): void {
    $this->world->student('Marlo Quillfeather', null, [
        'birth_date' => '2012-05-04',
        'number' => '020777',
        'email' => 'marlo@shoremail.example',
    ]);
    $this->world->student('Uma Rao', null, ['birth_date' => '2012-01-01']);
    $found = $this->postJson('/api/join/names', [
        'code' => $this->code,
        'given_name' => 'Marlow',
        'family_name' => 'Quilfeather',
    ])->assertOk();
    expect($found->json('names.*.name'))
        ->toBe(['Marlo Q.'])
        ->and($found->json('check'))
        ->toBe('birth_date');
    foreach (['Quillfeather', '2012', '020777', 'shoremail', 'quillfeather'] as $private) {
        expect((string) $found->getContent())->not->toContain($private);
    }
    $this->postJson('/api/join/names', [
        'code' => $this->code,
        'given_name' => 'Zebulon',
        'family_name' => 'Fitch',
    ])->assertJsonPath('names', []);
    $this->postJson('/api/join/names', [
        'code' => 'KDM4X7K',
        'given_name' => 'Marlo',
        'family_name' => 'Quillfeather',
    ])->assertStatus(422);
});

it('lets a student of the list take the account that waits, once, with what they know', function (): void {
    $id = $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04'], 'maple otter candy');
    $names = $this->postJson('/api/join/names', $this->newcomer)->json('names');
    $body = [...$this->newcomer, 'key' => $names[0]['key']];
    $this->postJson('/api/join/claim', [...$body, 'proof' => '2012-05-05'])
        ->assertStatus(422)
        ->assertJsonPath(
            'errors.proof.0',
            'That does not fit what the school has on record, or the account is in use already. Look again, ' .
                'sign in with the card or password, or ask your teacher.',
        );
    $this->postJson('/api/join/claim', [...$body, 'proof' => '2012-05-04', 'password' => 'short'])->assertStatus(422);
    $this->postJson('/api/join/claim', [...$body, 'proof' => '2012-05-04'])
        ->assertOk()
        ->assertJson(['section' => '3 Heron', 'userName' => 'marlo.quillfeather']);
    expect(auth()->id())
        ->toBe($id)
        ->and(DB::table('people')->where('family_name', 'Quillfeather')->count())
        ->toBe(1);
    ($this->out)();
    $this->postJson('/api/sign-in', [
        'user_name' => 'marlo.quillfeather',
        'secret' => 'maple otter candy',
    ])->assertStatus(422);
    $this->postJson('/api/sign-in', ['user_name' => 'marlo.quillfeather', 'secret' => 'green boat stone'])->assertOk();
    ($this->out)();
    $this->postJson('/api/join/claim', [...$body, 'proof' => '2012-05-04'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'That name is not on the list any more. Type your name again.');
});

it('stops guessing what another student knows', function (): void {
    $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04']);
    $key = $this->postJson('/api/join/names', $this->newcomer)->json('names.0.key');
    for ($i = 1; $i <= 5; $i++) {
        $this->postJson('/api/join/claim', [...$this->newcomer, 'key' => $key, 'proof' => "2012-06-0$i"])->assertStatus(
            422,
        );
    }
    $this->postJson('/api/join/claim', [...$this->newcomer, 'key' => $key, 'proof' => '2012-05-04'])->assertStatus(429);
    // A key of another code opens nothing.
    $other = $this->world->code($this->world->otherSection, 'TTRWXK');
    DB::table('tries')->delete();
    $this->postJson('/api/join/claim', [...$this->newcomer, 'code' => $other, 'key' => $key, 'proof' => '2012-05-04'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'That name is not on the list any more. Type your name again.');
});

it('has newcomers wait until they are let in, and signs their own browser in', function (): void {
    $this->postJson('/api/join/ask', [...$this->newcomer, 'password' => 'quillfeather'])->assertStatus(422);
    $this->postJson('/api/join/ask', $this->newcomer)
        ->assertOk()
        ->assertJson(['state' => 'waiting', 'section' => '3 Heron']);
    expect(DB::table('people')->where('given_name', 'Marlo')->exists())
        ->toBeFalse()
        ->and(DB::table('join_requests')->value('password'))
        ->not->toContain('green');
    $this->postJson('/api/join/asked')->assertJson(['state' => 'waiting', 'userName' => '']);
    $door = $this->app['session']->driver()->all();
    ($this->as)('lead')
        ->getJson("/api/sections/$this->section")
        ->assertJsonPath('waiting', 1);
    $request = $this->getJson("/api/sections/$this->section/requests")
        ->assertOk()
        ->json('requests.0');
    expect($request)->toMatchArray([
        'name' => 'Marlo Quillfeather',
        'state' => 'waiting',
        'cause' => 'newcomer',
        'mayBe' => [],
    ]);
    $this->postJson("/api/sections/$this->section/requests/{$request['id']}/approve")
        ->assertOk()
        ->assertJsonPath('requests', []);
    $this->postJson("/api/sections/$this->section/requests/{$request['id']}/approve")->assertStatus(422);
    ($this->out)();
    $this->withSession($door)
        ->postJson('/api/join/asked')
        ->assertJson(['state' => 'approved', 'userName' => 'marlo.quillfeather']);
    expect(auth()->user()?->fullName())->toBe('Marlo Quillfeather');
    ($this->out)();
    $this->postJson('/api/sign-in', ['user_name' => 'marlo.quillfeather', 'secret' => 'green boat stone'])->assertOk();
});

it('shows with a request whom of the Roll it may be, and makes no second account of them', function (): void {
    $known = $this->world->student(
        'Marlo Quillfeather',
        $this->world->otherSection,
        ['birth_date' => '2012-05-04'],
        'maple otter candy',
    );
    $this->postJson('/api/join/ask', [...$this->newcomer, 'given_name' => 'Marlow'])->assertOk();
    $teacher = ($this->as)('lead')
        ->getJson("/api/sections/$this->section/requests")
        ->json('requests.0.mayBe.0');
    expect($teacher)
        ->toMatchArray(['id' => $known, 'name' => 'Marlo Q.', 'sections' => ''])
        ->and(array_filter(array_column($teacher['evidence'], 'right')))
        ->toBe([]);
    $full = ($this->as)('coordinator')
        ->getJson("/api/sections/$this->section/requests")
        ->json('requests.0');
    expect($full['mayBe'][0])
        ->toMatchArray(['name' => 'Marlo Quillfeather', 'sections' => '3 Plover'])
        ->and($full['mayBe'][0]['probability'])
        ->toBeGreaterThan(0.9);
    $door = $this->app['session']->driver()->all();
    $this->postJson("/api/sections/$this->section/requests/{$full['id']}/approve", ['as' => $known])
        ->assertOk()
        ->assertJsonPath(
            'said',
            'Marlow Quillfeather is Marlo Quillfeather of the list and comes into 3 Heron. The account ' .
                'waited for its owner and is theirs now, with the password they chose.',
        );
    expect(DB::table('people')->where('family_name', 'Quillfeather')->count())
        ->toBe(1)
        ->and(DB::table('enrollments')->where('person_id', $known)->count())
        ->toBe(2)
        ->and(DB::table('sign_ins')->where('person_id', $known)->count())
        ->toBe(1);
    ($this->out)();
    $this->postJson('/api/sign-in', ['user_name' => 'marlo.quillfeather', 'secret' => 'green boat stone'])
        ->assertOk()
        ->assertJsonPath('me.name', 'Marlo Quillfeather');
});

it('tells one who was turned away, makes nothing, and undo lets the request wait again', function (): void {
    $before = World::checksum();
    $this->postJson('/api/join/ask', $this->newcomer)->assertOk();
    $door = $this->app['session']->driver()->all();
    $id = DB::table('join_requests')->value('id');
    ($this->as)('co_teacher')
        ->postJson("/api/sections/$this->section/requests/$id/refuse")
        ->assertOk();
    ($this->out)();
    $this->withSession($door)
        ->postJson('/api/join/asked')
        ->assertJson(['state' => 'refused']);
    $this->assertGuest();
    $this->postJson('/api/join/asked')->assertJson(['state' => 'none']);
    expect(DB::table('people')->where('given_name', 'Marlo')->exists())->toBeFalse();
    foreach (DB::table('ledger_entries')->orderByDesc('seq')->pluck('id') as $entry) {
        ($this->as)('coordinator')
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk();
    }
    expect(World::checksum())->toBe($before);
});

it('lets in by a mail to an address of the school, once, in time', function (): void {
    ($this->terms)(['who' => 'domain']);
    ($this->rules)(['under_13' => 'allow']);
    $this->postJson('/api/join/ask', [...$this->newcomer, 'email' => 'marlo@elsewhere.example'])
        ->assertStatus(422)
        ->assertJsonPath('errors.email.0', 'Type your address at the school: it ends with @lanternfield.example.');
    $this->postJson('/api/join/ask', [...$this->newcomer, 'email' => 'marlo@lanternfield.example'])->assertJson([
        'state' => 'mail',
    ]);
    preg_match('~/confirm#(\S+)~', (string) DB::table('outgoing_messages')->value('text'), $m);
    expect(DB::table('join_requests')->value('token_hash'))->toBe(hash('sha256', $m[1]));
    $this->postJson('/api/join/confirm', ['token' => strrev($m[1]), 'password' => 'green boat stone'])->assertStatus(
        404,
    );
    $this->travel(4)->days();
    $this->postJson('/api/join/confirm', ['token' => $m[1], 'password' => 'green boat stone'])->assertStatus(422);
    $this->travelBack();
    $this->postJson('/api/join/confirm', ['token' => $m[1], 'password' => 'green boat stone'])
        ->assertOk()
        ->assertJson(['section' => '3 Heron', 'userName' => 'marlo.quillfeather']);
    expect(auth()->user()?->email)->toBe('marlo@lanternfield.example');
    $this->postJson('/api/join/confirm', ['token' => $m[1], 'password' => 'green boat stone'])->assertStatus(404);
});

it('keeps the school’s rule for those under 13', function (): void {
    $child = [...$this->newcomer, 'birth_date' => '2018-05-04'];
    ($this->rules)(['under_13' => 'listed']);
    $this->postJson('/api/join/ask', $child)
        ->assertStatus(422)
        ->assertJsonPath('detail', 'The school makes the accounts of students under 13. Ask your teacher for yours.');
    ($this->rules)(['under_13' => 'approve']);
    $this->postJson('/api/join/ask', $child)->assertJson(['state' => 'waiting']);
    expect(DB::table('join_requests')->value('cause'))->toBe('under_13');
});
