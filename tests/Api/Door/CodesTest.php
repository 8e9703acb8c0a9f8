<?php

declare(strict_types=1);

use App\Models\Person;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Tests\Support\Tries;
use Tests\Support\World;
use Vantrel\Core\Accounts\Limit;

beforeEach(fn() => readyAtTheDoor($this));

it('keeps to start, end and who a code is for', function (): void {
    $noor = fn() => $this->actingAs(Person::query()->findOrFail($this->world->student('Noor ' . uniqid())));
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/code/terms", [
            'who' => 'accounts',
            'starts_at' => now()->addHour()->toIso8601String(),
            'ends_at' => now()->addHours(3)->toIso8601String(),
            'cap' => 2,
        ])
        ->assertOk()
        ->assertJson(['who' => 'accounts', 'cap' => 2]);
    $noor()
        ->postJson('/api/join', ['code' => $this->code])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This code does not work yet. Try again when your teacher says so.');
    $this->travel(95)->minutes();
    $noor()
        ->postJson('/api/join', ['code' => $this->code])
        ->assertOk();
    $noor()
        ->postJson('/api/join', ['code' => $this->code])
        ->assertOk();
    $noor()
        ->postJson('/api/join', ['code' => $this->code])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'All places for this code are taken. Tell your teacher, who can let more in.');
    $this->postJson('/api/join/ask', $this->newcomer)->assertStatus(422);
    $this->travel(95)->minutes();
    $noor()
        ->postJson('/api/join', ['code' => $this->code])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This code has ended. Ask your teacher for a new one.');
    $arrived = ($this->as)('lead')
        ->getJson("/api/sections/$this->section/code")
        ->json('arrived');
    expect($arrived)
        ->toHaveCount(2)
        ->and($arrived[0]['name'])
        ->toStartWith('Noor')
        ->and($arrived[0]['at'])
        ->toEndWith('Z');
    $this->postJson("/api/sections/$this->section/code/terms", [
        'who' => 'approval',
        'ends_at' => now()->subDay()->toIso8601String(),
    ])->assertStatus(422);
});

it('takes a chosen code where it is safe, and says every rule', function (): void {
    $length = ($this->as)('lead')
        ->getJson("/api/sections/$this->section/code")
        ->json('payload');
    $wish = substr('KWM9TXBD', 0, $length);
    $this->getJson("/api/sections/$this->section/code/chosen?chosen=$wish")
        ->assertOk()
        ->assertJson(['safe' => true])
        ->assertJsonCount(7, 'rules');
    $made = $this->postJson("/api/sections/$this->section/code", ['chosen' => $wish, 'who' => 'approval'])->assertOk();
    expect(str_replace('-', '', $made->json('written')))->toStartWith($wish);
    $this->getJson("/api/sections/$this->section/code/chosen?chosen=$wish")->assertJson(['safe' => false]);
    $this->postJson("/api/sections/$this->section/code", ['chosen' => 'HRNHRN'])
        ->assertStatus(422)
        ->assertJsonPath('errors.chosen.0', 'That code is not safe to use. Look at the rules beside it.');
});

it(
    'opens the name list by the room pass, shows display names only, and one after the other comes in',
    function (): void {
        $noor = $this->world->student('Noor Haddad', $this->section, ['number' => '020555']);
        ($this->rules)(['day_opens' => '00:00', 'day_closes' => '23:59']);
        $pdf = ($this->as)('substitute')
            ->post("/api/sections/$this->section/room-pass", ['hours' => 'school', 'paper' => 'a4'])
            ->assertOk()
            ->assertHeader('Content-Type', 'application/pdf');
        expect((string) $pdf->getContent())->toStartWith('%PDF');
        // The token stands on the poster alone; for the test a pass with a known one.
        DB::table('room_passes')->update(['token_hash' => hash('sha256', 'the-pass')]);
        ($this->out)();
        $list = $this->postJson('/api/room', ['token' => 'the-pass'])->assertOk();
        expect($list->json('names.*.name'))
            ->toBe(['Noor H.', 'Wilhelmina S.'])
            ->and((string) $list->getContent())
            ->not->toContain('Haddad')
            ->not->toContain('020555')
            ->not->toContain($noor);
        $this->postJson('/api/room/enter', ['token' => 'the-pass', 'key' => $list->json('names.0.key')])
            ->assertOk()
            ->assertJson(['name' => 'Noor Haddad', 'room' => '3 Heron']);
        $this->getJson('/api/home')->assertJsonPath('students.0.name', 'Noor Haddad');
        $this->postJson('/api/password', ['password' => 'green boat stone'])->assertStatus(403);
        $this->getJson('/api/sessions')->assertStatus(403);
        $this->postJson('/api/room/enter', ['token' => 'the-pass', 'key' => $list->json('names.1.key')])
            ->assertOk()
            ->assertJson(['name' => 'Wilhelmina Seabright']);
        // Ended: at once, also for who is in.
        $session = $this->app['session']->driver()->all();
        DB::table('room_passes')->update(['state' => 'ended']);
        $this->withSession($session)->getJson('/api/home')->assertStatus(401);
        $this->postJson('/api/room', ['token' => 'the-pass'])
            ->assertStatus(422)
            ->assertJsonPath(
                'detail',
                'This pass does not work any more. There is a newer one in the room, or ask the teacher.',
            );
        $this->postJson('/api/room', ['token' => 'another'])->assertStatus(404);
    },
);

it('ends a room pass at an hour of the school’s clocks', function (): void {
    ($this->rules)(['time_zone' => 'America/New_York']);
    $this->travelTo(CarbonImmutable::parse('2026-11-23 15:00:00', 'UTC'));
    $make = fn(string $until) => ($this->as)('lead')->postJson("/api/sections/$this->section/room-pass", [
        'hours' => 'any',
        'paper' => 'letter',
        'until' => $until,
    ]);
    $make('2026-11-23T09:59')
        ->assertStatus(422)
        ->assertJsonPath('errors.until.0', 'That end has passed already. Choose a later one.');
    $make('2026-11-23')->assertStatus(422)->assertJsonValidationErrors('until');
    $pdf = $make('2026-11-23T10:45')->assertOk();
    expect((string) $pdf->getContent())
        ->toStartWith('%PDF')
        ->and(DB::table('room_passes')->value('ends_at'))
        ->toBe('2026-11-23 15:45:00');
    $this->getJson("/api/sections/$this->section")->assertJsonPath('roomPass.until', '2026-11-23T10:45');
    DB::table('room_passes')->update(['token_hash' => hash('sha256', 'the-pass')]);
    ($this->out)();
    $this->postJson('/api/room', ['token' => 'the-pass'])->assertOk();
    $this->travelTo(CarbonImmutable::parse('2026-11-23 15:45:00', 'UTC'));
    $this->postJson('/api/room', ['token' => 'the-pass'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This pass has ended. Ask the teacher for a new one.');
});

it('asks for the three pictures a child has chosen, with few tries', function (): void {
    $this->world->insert('room_passes', [
        'section_id' => $this->section,
        'token_hash' => hash('sha256', 'the-pass'),
        'state' => 'live',
        'hours' => 'any',
        'pictures' => 1,
        'made_at' => now(),
    ]);
    $key = $this->postJson('/api/room', ['token' => 'the-pass'])
        ->assertJsonPath('pictures', true)
        ->json('names.0.key');
    $tap = fn(array $pictures) => $this->postJson('/api/room/enter', [
        'token' => 'the-pass',
        'key' => $key,
        'pictures' => $pictures,
    ]);
    $tap(['boat', 'boat', 'boat'])->assertStatus(422);
    $tap(['boat', 'leaf'])->assertStatus(422);
    $tap(['boat', 'leaf', 'key'])->assertOk();
    expect(DB::table('people')->where('id', $this->world->people['student'])->value('pictures'))
        ->toHaveLength(64)
        ->and((string) DB::table('ledger_changes')->where('entity', 'people')->value('after'))
        ->toContain('(secret)');
    $tap(['boat', 'leaf', 'key'])->assertOk();
    for ($i = 0; $i < 5; $i++) {
        $tap(['boat', 'leaf', 'sun'])
            ->assertStatus(422)
            ->assertJsonPath('detail', 'Those are not your pictures, or not in that order. Try again.');
    }
    $tap(['boat', 'leaf', 'key'])->assertStatus(429);
    ($this->as)('lead')
        ->deleteJson("/api/sections/$this->section/people/{$this->world->people['student']}/pictures")
        ->assertNoContent();
    DB::table('tries')->delete();
    ($this->out)();
    $tap(['moon', 'moon', 'key'])->assertOk();
});

it('ends all that belongs to a section when it is archived, and no card', function (): void {
    $this->postJson('/api/join/ask', $this->newcomer)->assertOk();
    $this->world->insert('room_passes', [
        'section_id' => $this->section,
        'token_hash' => hash('sha256', 'the-pass'),
        'state' => 'live',
        'hours' => 'any',
        'made_at' => now(),
    ]);
    $this->world->insert('invitations', [
        'section_id' => $this->section,
        'email' => 'x@lanternfield.example',
        'role' => 'assistant',
        'state' => 'invited',
        'token_hash' => hash('sha256', 'the-invitation'),
        'sent_at' => now(),
        'expires_at' => now()->addDay(),
        'invited_by' => $this->world->people['lead'],
    ]);
    $this->world->badge($this->world->people['student'], 'the-card');
    $before = World::checksum();
    $plan = ($this->as)('lead')
        ->getJson("/api/sections/$this->section/archive")
        ->json();
    $this->postJson("/api/sections/$this->section/archive", [
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
    ])
        ->assertOk()
        ->assertJsonPath('powers', ['see_roster']);
    ($this->out)();
    $this->postJson('/api/room', ['token' => 'the-pass'])->assertStatus(422);
    $this->postJson('/api/invited', ['token' => 'the-invitation'])->assertJsonPath('state', 'withdrawn');
    $this->postJson('/api/join/door', ['code' => $this->code])->assertStatus(422);
    expect(DB::table('join_requests')->value('state'))->toBe('refused');
    $this->get('/b/the-card')->assertRedirect('/');
    expect(auth()->id())->toBe($this->world->people['student']);
    DB::table('sign_ins')->update(['last_signed_in_at' => null]);
    $entry = DB::table('ledger_entries')->where('action', 'archive')->value('id');
    ($this->as)('coordinator')
        ->postJson("/api/ledger/$entry/undo")
        ->assertOk();
    $after = World::checksum();
    // The secrets of the request were not kept and do not come back.
    unset($before['join_requests'], $after['join_requests']);
    expect($after)->toBe($before);
});

it(
    'counts an account as used once its owner has come in by the room pass: nobody takes it at the door',
    function (): void {
        $id = $this->world->student('Marlo Quillfeather', $this->section, ['birth_date' => '2012-05-04']);
        $this->world->insert('room_passes', [
            'section_id' => $this->section,
            'token_hash' => hash('sha256', 'the-pass'),
            'state' => 'live',
            'hours' => 'any',
            'made_at' => now(),
        ]);
        $key = $this->postJson('/api/join/names', $this->newcomer)->json('names.0.key');
        $names = collect($this->postJson('/api/room', ['token' => 'the-pass'])->json('names'));
        $this->postJson('/api/room/enter', [
            'token' => 'the-pass',
            'key' => $names->firstWhere('name', 'Marlo Q.')['key'],
        ])->assertOk();
        ($this->out)();
        $this->postJson('/api/join/claim', [...$this->newcomer, 'key' => $key, 'proof' => '2012-05-04'])
            ->assertStatus(422)
            ->assertJsonPath('detail', 'That name is not on the list any more. Type your name again.');
        expect(DB::table('sign_ins')->where('person_id', $id)->value('password'))->toBeNull();
    },
);

it('lets two people answer one request: the second hears that it is answered', function (): void {
    $this->postJson('/api/join/ask', $this->newcomer)->assertOk();
    $id = DB::table('join_requests')->value('id');
    ($this->as)('lead')
        ->postJson("/api/sections/$this->section/requests/$id/refuse")
        ->assertOk();
    ($this->as)('substitute')
        ->postJson("/api/sections/$this->section/requests/$id/approve")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This request has been answered: they were turned away.');
});

it(
    'does not let a link bury a teacher: requests are limited by code, by address and by number waiting',
    function (): void {
        for ($i = 0; $i < 200; $i++) {
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
        $this->postJson('/api/join/ask', $this->newcomer)
            ->assertStatus(422)
            ->assertJsonPath('detail', 'Too many are waiting for an answer. Ask your teacher to look at them first.');
        DB::table('join_requests')->delete();
        $code = DB::table('join_codes')->value('id');
        Tries::have(Limit::AskCode, $code, 300);
        $this->postJson('/api/join/ask', $this->newcomer)->assertStatus(429);
    },
);

it('keeps a closed code closed for whoever stands at the door with it', function (): void {
    $this->world->student('Marlo Quillfeather', null, ['birth_date' => '2012-05-04']);
    $key = $this->postJson('/api/join/names', $this->newcomer)->json('names.0.key');
    ($this->as)('lead')
        ->deleteJson("/api/sections/$this->section/code")
        ->assertNoContent();
    ($this->out)();
    foreach (
        [
            'door' => $this->newcomer,
            'names' => $this->newcomer,
            'claim' => [...$this->newcomer, 'key' => $key, 'proof' => '2012-05-04'],
            'ask' => $this->newcomer,
        ]
        as $step => $body
    ) {
        $this->postJson("/api/join/$step", $body)
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.code.0',
                'This code opens nothing, or not any more. Ask your teacher for the one that works today.',
            );
    }
});
