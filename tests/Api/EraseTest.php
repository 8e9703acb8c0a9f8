<?php

declare(strict_types=1);

use App\Intake\ListFiles;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// One person is erased for good: no table, no image of the ledger, no mail and no file says any more who it was, and
// everything that was counted counts as before.

beforeEach(fn() => readyToErase($this));

it('leaves nothing that says who it was, in any table or file', function (): void {
    ($this->leave)();
    $file = ListFiles::write("Name,Number\nZebulon Quackenbush,998877\n");
    $list = $this->world->insert(
        'imports',
        [
            'school_id' => $this->world->school,
            'title' => 'Fall list',
            'files' => json_encode([['file' => $file, 'title' => 'Fall list']]),
            'state' => 'applied',
            'answers' => '{}',
            'made_at' => now(),
            'changed_at' => now(),
        ],
        false,
    );
    $content = json_encode(['matchId' => $this->id, 'cells' => ['Zebulon Quackenbush']]);
    DB::table('import_rows')->insert(['import_id' => $list, 'number' => 2, 'verdict' => 'same', 'content' => $content]);
    $this->world->insert(
        'outgoing_messages',
        [
            'school_id' => $this->world->school,
            'to_address' => 'zebulon@quackmail.example',
            'subject' => 'Zebulon, your link',
            'text' => 'Hello Zebulon',
            'made_at' => now(),
        ],
        false,
    );
    $this->world->insert(
        'outgoing_messages',
        [
            'school_id' => $this->world->school,
            'to_address' => 'petra@lanternfield.example',
            'subject' => 'Somebody asks to come in',
            'text' => 'Zeb Quackenbush asks to come into 3 Heron.',
            'made_at' => now(),
        ],
        false,
    );
    $this->world->insert('guardian_claims', [
        'letter_id' => $this->world->insert('family_letters', [
            'student_id' => $this->world->people['student'],
            'language' => 'en',
            'token_hash' => str_repeat('a', 64),
            'state' => 'live',
            'slip' => 'KDM4X7R',
            'made_at' => now(),
        ]),
        'student_id' => $this->world->people['student'],
        'person_id' => $this->id,
        'given_name' => 'Zebulon',
        'family_name' => 'Quackenbush',
        'email' => 'zebulon@quackmail.example',
        'phone' => '+12025550177',
        'state' => 'approved',
        'made_at' => now(),
    ]);
    $this->world->insert('transfer_requests', [
        'person_id' => $this->id,
        'from_school_id' => $this->world->school,
        'to_school_id' => $this->world->otherSchool,
        'kind' => 'transfer',
        'state' => 'refused',
        'said' => json_encode(['given_name' => 'Zebulon', 'family_name' => 'Quackenbush']),
        'made_at' => now(),
    ]);
    $this->postJson("/api/schools/{$this->world->school}/notices", [
        'kind' => 'notice',
        'readers' => 'all',
        'title' => 'Zebulon Quackenbush won the regatta',
        'body' => 'We are glad with Zeb Quackenbush, as he is called now.',
        'texts' => ['fr' => ['title' => 'Zebulon Quackenbush a gagné', 'body' => 'Bravo, Zebulon Quackenbush.']],
    ])->assertSuccessful();
    $this->world->insert(
        'mailings',
        [
            'school_id' => $this->world->school,
            'person_id' => $this->world->people['coordinator'],
            'whom' => 'Guardians of 3 Heron',
            'subject' => 'About Zebulon Quackenbush',
            'goes_at' => now(),
            'made_at' => now(),
        ],
        false,
    );
    $this->world->insert(
        'letter_templates',
        [
            'school_id' => $this->world->school,
            'name' => 'Zebulon Quackenbush: thanks',
            'texts' => json_encode(['en' => ['subject' => 'Thanks', 'text' => 'Zebulon Quackenbush thanks you.']]),
            'made_at' => now(),
        ],
        false,
    );
    $counts = fn(): array => [
        DB::table('enrollments')->where('section_id', $this->world->section)->count(),
        DB::table('people')->where('kind', 'student')->count(),
        DB::table('ledger_entries')->where('action', '!=', 'erase')->count(),
        DB::table('ledger_changes')
            ->whereIn('entry_seq', DB::table('ledger_entries')->where('action', '!=', 'erase')->select('seq'))
            ->count(),
    ];
    $before = $counts();
    ($this->erase)()->assertOk();
    expect($counts())->toBe($before);
    $found = [];
    foreach (DB::select('show tables') as $row) {
        $table = (string) array_values((array) $row)[0];
        foreach (DB::table($table)->get() as $record) {
            $text = json_encode($record, JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE);
            // The guardian is another person, and has the family name too.
            $text = str_ireplace('Ottoline Quackenbush', '', str_ireplace('ottoline quackenbush', '', (string) $text));
            $others = '/"(family_name|word)":"quackenbush"|ottoline/i';
            if (
                preg_match('/zebul|\bzeb\b|998877|quackmail/i', $text) === 1 ||
                (preg_match('/quackenbush/i', $text) === 1 && preg_match($others, $text) !== 1)
            ) {
                $found[] = "$table: $text";
            }
        }
    }
    expect($found)
        ->toBe([])
        ->and(is_file(ListFiles::path($file)))
        ->toBeFalse()
        ->and(DB::table('guardianships')->where('id', $this->tie)->value('state'))
        ->toBe('ended')
        ->and(DB::table('notices')->value('title'))
        ->toBe('somebody erased won the regatta');
    $this->getJson($this->uri)->assertOk()->assertJsonPath('name', 'Somebody erased')->assertJsonPath('erased', true);
    $entry = DB::table('ledger_entries')->where('action', 'erase')->first();
    expect($entry->title)->toBe('A person erased');
});

it('lets nobody undo it, or undo what was before it, or edit what is left', function (): void {
    ($this->leave)();
    ($this->erase)()->assertOk();
    $after = World::checksum();
    foreach (
        DB::table('ledger_entries')
            ->orderByDesc('seq')
            ->get(['id', 'action'])
        as $entry
    ) {
        $undone = $this->postJson("/api/ledger/$entry->id/undo");
        expect($undone->getStatusCode())->toBe($entry->action === 'erase' ? 422 : 200);
    }
    // What was undone has left all as it is: it has changed since.
    expect(World::checksum())->toBe($after);
    $version = DB::table('people')->where('id', $this->id)->value('version');
    $this->postJson($this->uri, ['version' => $version, 'given_name' => 'Zeb'])->assertStatus(422);
    $this->postJson("$this->uri/erase/plan")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'This person has been erased already.');
});

it('erases nobody who is on the Roll, and nobody without the password', function (): void {
    $this->postJson("$this->uri/erase/plan")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Zeb Quackenbush is still on the Roll. Take them off first: they have left.');
    ($this->leave)();
    $before = World::checksum();
    ($this->erase)('something else')->assertStatus(422);
    expect(World::checksum())->toBe($before);
    Cache::flush();
    $plan = $this->postJson("$this->uri/erase/plan")->assertOk();
    ($this->change)($this->id, ['grade' => '04']);
    $this->postJson("$this->uri/erase", [
        'fingerprint' => $plan->json('fingerprint'),
        'seed' => $plan->json('seed'),
        'password' => OWN_PASSWORD,
    ])->assertStatus(409);
});

it('erases nobody whom a list that waits would bring back', function (): void {
    ($this->leave)();
    $list = $this->world->insert(
        'imports',
        [
            'school_id' => $this->world->school,
            'title' => 'Fall list',
            'files' => '[]',
            'state' => 'planned',
            'answers' => '{}',
            'made_at' => now(),
            'changed_at' => now(),
        ],
        false,
    );
    $content = json_encode(['cells' => ['998877']]);
    DB::table('import_rows')->insert(['import_id' => $list, 'number' => 2, 'verdict' => 'same', 'content' => $content]);
    $this->postJson("$this->uri/erase/plan")
        ->assertStatus(422)
        ->assertJsonPath(
            'detail',
            'Zeb Quackenbush stands in a list that waits: Fall list. Apply or discard it first.',
        );
});

it('erases with somebody the accounts that were merged into theirs', function (): void {
    $twin = $this->world->student('Zebulon Quackenbusch', null, ['birth_date' => '2015-08-03']);
    $this->world->lookThrough();
    $pair = "/api/schools/{$this->world->school}/look-alikes/$this->id-$twin";
    $print = $this->getJson($pair)->assertOk()->json('plan.fingerprint');
    $this->postJson("$pair/merge", ['fingerprint' => $print])->assertOk();
    $stays = DB::table('people')->where('id', $this->id)->value('state') === 'merged' ? $twin : $this->id;
    ($this->change)($stays, ['state' => 'left']);
    $this->uri = "/api/people/$stays";
    ($this->erase)()->assertOk();
    expect(
        DB::table('people')
            ->whereIn('id', [$this->id, $twin])
            ->pluck('given_name')
            ->unique()
            ->all(),
    )
        ->toBe(['Somebody erased'])
        ->and(DB::table('ledger_entries')->where('action', 'merge')->value('title'))
        ->not->toContain('Quackenbusch')
        ->and(
            DB::table('search_words')
                ->whereIn('person_id', [$this->id, $twin])
                ->pluck('word')
                ->all(),
        )
        ->not->toContain('quackenbusch');
});
