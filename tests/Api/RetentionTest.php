<?php

declare(strict_types=1);

use App\Intake\ListFiles;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\LedgerEntry;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Person;

beforeEach(function (): void {
    $this->world = World::make();
    $this->ago = fn(int $days): string => now()->subDays($days)->format('Y-m-d H:i:s');
    DB::table('schools')
        ->where('id', $this->world->school)
        ->update([
            'keep_askings_days' => 30,
            'keep_lists_days' => 60,
            'keep_messages_days' => 90,
            'keep_ledger_days' => 400,
        ]);
    $this->asking = fn(string $state, int $days): string => $this->world->insert('join_requests', [
        'section_id' => $this->world->section,
        'state' => $state,
        'cause' => 'newcomer',
        'given_name' => 'A',
        'family_name' => 'B',
        'made_at' => ($this->ago)($days),
        'answered_at' => $state === 'refused' ? ($this->ago)($days) : null,
    ]);
    $this->list = function (string $state, int $days): array {
        $file = ListFiles::write("Name\nA B\n");
        $id = $this->world->insert(
            'imports',
            [
                'school_id' => $this->world->school,
                'title' => 'List',
                'files' => json_encode([['file' => $file, 'title' => 'List']]),
                'state' => $state,
                'answers' => '{"a": "b"}',
                'made_at' => ($this->ago)($days),
                'changed_at' => ($this->ago)($days),
            ],
            false,
        );
        DB::table('import_rows')->insert(['import_id' => $id, 'number' => 2, 'verdict' => 'new', 'content' => '{}']);

        return [$id, ListFiles::path($file)];
    };
    $this->message = fn(?string $school, int $days, ?int $sent = null): string => $this->world->insert(
        'outgoing_messages',
        [
            'school_id' => $school,
            'to_address' => 'a@x.example',
            'subject' => 's',
            'text' => 't',
            'made_at' => ($this->ago)($days),
            'sent_at' => $sent === null ? null : ($this->ago)($sent),
        ],
        false,
    );
});

it('clears away what each school has kept for as long as it says, and says so in the ledger', function (): void {
    $askings = [
        ($this->asking)('refused', 31),
        ($this->asking)('refused', 29),
        ($this->asking)('mail', 31),
        ($this->asking)('waiting', 400),
        ($this->asking)('approved', 400),
    ];
    $lists = [
        'old and applied' => ($this->list)('applied', 61),
        'new and applied' => ($this->list)('applied', 59),
        'old and waiting' => ($this->list)('planned', 61),
    ];
    $messages = [
        ($this->message)($this->world->school, 91),
        ($this->message)($this->world->school, 89),
        ($this->message)($this->world->otherSchool, 179),
        // Written long before its day.
        ($this->message)($this->world->school, 200, 5),
    ];
    $this->artisan('vantrel:clean-up')
        ->expectsOutputToContain('middle: nothing is past its time.')
        ->expectsOutputToContain(
            'primary: Cleared away, as Settings say: 2 requests and invitations that were turned away or never ' .
                'answered, ' .
                'the files of 2 lists and 1 message.',
        )
        ->assertExitCode(0);
    expect(DB::table('join_requests')->orderBy('id')->pluck('id')->all())
        ->toBe([$askings[1], $askings[3], $askings[4]])
        ->and(DB::table('outgoing_messages')->orderBy('id')->pluck('id')->all())
        ->toBe(array_slice($messages, 1));
    foreach (
        [
            'old and applied' => ['applied', false],
            'new and applied' => ['applied', true],
            'old and waiting' => ['discarded', false],
        ]
        as $which => [$state, $kept]
    ) {
        [$id, $path] = $lists[$which];
        expect(DB::table('imports')->where('id', $id)->value('state'))
            ->toBe($state)
            ->and(is_file($path))
            ->toBe($kept)
            ->and(DB::table('import_rows')->where('import_id', $id)->exists())
            ->toBe($kept);
    }
    $entry = DB::table('ledger_entries')->first();
    expect($entry->action)
        ->toBe('clean-up')
        ->and($entry->sentence)
        ->toContain('2 requests')
        ->and($entry->school_id)
        ->toBe($this->world->school);
    $as = $this->actingAs($this->world->as('coordinator'));
    $as->getJson("/api/schools/{$this->world->school}/ledger")
        ->assertJsonPath('entries.0.canUndo', false)
        ->assertJsonPath('entries.0.undoUntil', null);
    $as->postJson("/api/ledger/$entry->id/undo")
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'is gone'));
    $as->getJson("/api/intakes/{$lists['old and applied'][0]}")->assertOk();
    // Run again, there is nothing left to do.
    $this->artisan('vantrel:clean-up')->expectsOutputToContain('primary: nothing is past its time.')->assertExitCode(0);
    expect(DB::table('ledger_entries')->count())->toBe(1);
    unlink($lists['new and applied'][1]);
});

it('clears away what is over in any case', function (): void {
    DB::table('password_resets')->insert([
        [
            'id' => str_repeat('0', 26),
            'sign_in_id' => DB::table('sign_ins')->value('id'),
            'token_hash' => str_repeat('a', 64),
            'expires_at' => ($this->ago)(8),
        ],
        [
            'id' => str_repeat('1', 26),
            'sign_in_id' => DB::table('sign_ins')->value('id'),
            'token_hash' => str_repeat('b', 64),
            'expires_at' => ($this->ago)(6),
        ],
    ]);
    DB::table('cache')->insert([
        ['key' => 'old', 'value' => 'x', 'expiration' => time() - 1],
        ['key' => 'new', 'value' => 'x', 'expiration' => time() + 60],
    ]);
    DB::table('sessions')->insert([
        ['id' => 'old', 'payload' => '', 'last_activity' => time() - 92 * 86400],
        ['id' => 'new', 'payload' => '', 'last_activity' => time()],
    ]);
    $this->artisan('vantrel:clean-up')->assertExitCode(0);
    expect(DB::table('password_resets')->pluck('id')->all())
        ->toBe([str_repeat('1', 26)])
        ->and(DB::table('cache')->pluck('key')->all())
        ->toContain('new')
        ->not->toContain('old')
        ->and(DB::table('sessions')->pluck('id')->all())
        ->toBe(['new']);
});

it('runs every night', function (): void {
    $events = collect(app(Illuminate\Console\Scheduling\Schedule::class)->events());
    expect(
        $events
            ->map(fn($e): string => $e->expression . ' ' . substr((string) strrchr((string) $e->command, ' '), 1))
            ->all(),
    )->toContain('30 2 * * * vantrel:clean-up');
});

it('keeps nothing shorter than it can be undone, and nothing for ever', function (): void {
    $as = $this->actingAs($this->world->as('coordinator'));
    $uri = "/api/schools/{$this->world->school}/settings";
    $as->getJson($uri)
        ->assertOk()
        ->assertJson(['keepAskingsDays' => 30, 'keepListsDays' => 60, 'keepMessagesDays' => 90, 'keepLogsDays' => 30]);
    foreach (['keep_askings_days', 'keep_lists_days', 'keep_messages_days', 'keep_ledger_days'] as $field) {
        $as->postJson($uri, [$field => 14])
            ->assertStatus(422)
            ->assertJsonPath("errors.$field.0", 'Things are kept from 15 to 3,650 days.');
        $as->postJson($uri, [$field => 4000])->assertStatus(422);
    }
    $as->postJson($uri, ['keep_lists_days' => 20])
        ->assertOk()
        ->assertJsonPath('keepListsDays', 20)
        ->assertJsonPath('keepMessagesDays', 90);
});

it('takes back a list whose people have been sent links or have a second factor, links and all', function (): void {
    $as = $this->actingAs($this->world->as('coordinator'));
    $id = $as
        ->post(
            "/api/schools/{$this->world->school}/intakes",
            [
                'files' => [
                    Illuminate\Http\UploadedFile::fake()->createWithContent(
                        'staff.csv',
                        "Name,Email,Role\nVera Loomis,vera.loomis@lanternfield.example,teacher\n",
                    ),
                ],
            ],
            ['Accept' => 'application/json'],
        )
        ->json('id');
    $before = World::checksum();
    $as->postJson("/api/intakes/$id/apply", [
        'fingerprint' => $as->getJson("/api/intakes/$id")->json('fingerprint'),
    ])->assertOk();
    $vera = DB::table('people')->where('given_name', 'Vera')->first();
    expect($vera->email_state)->toBe('confirmed')->and($vera->email_by)->toBe('school');
    $as->postJson("/api/people/$vera->id/sign-in-link")->assertOk();
    DB::table('second_factors')->insert(['person_id' => $vera->id, 'secret' => 'x', 'recovery' => '[]']);
    $entry = $as->getJson("/api/intakes/$id")->json('entryId');
    $as->postJson("/api/ledger/$entry/undo")
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())
        ->toBe($before)
        ->and(DB::table('password_resets')->count())
        ->toBe(0);
});

it('keeps of an old entry when, who and how much, and no name; and lets nobody undo it', function (): void {
    $actor = $this->world->as('coordinator');
    $student = $this->world->people['student'];
    $rename = function (string $name, int $days) use ($actor, $student): LedgerEntry {
        Carbon::setTestNow(now()->subDays($days));
        $person = app(Snapshots::class)->find(Person::class, $student);
        $plan = new PlanBuilder();
        $plan->update($person, ['given_name' => $name], "now $name");
        $entry = app(Ledger::class)->apply(
            $plan->build("$name Seabright", "Calls her $name."),
            $this->world->school,
            $actor,
            Action::Merge,
        );
        Carbon::setTestNow();

        return $entry;
    };
    [$old, $new] = [$rename('Oldname', 401), $rename('Newname', 399)];
    $this->artisan('vantrel:clean-up')->assertSuccessful();
    expect(DB::table('ledger_changes')->where('entry_seq', $old->seq)->count())
        ->toBe(0)
        ->and(DB::table('ledger_changes')->where('entry_seq', $new->seq)->count())
        ->toBe(1);
    $this->actingAs($actor);
    $this->getJson("/api/ledger/$old->id")
        ->assertOk()
        ->assertJsonPath('entry.title', 'Look-alikes, details kept no longer')
        ->assertJsonPath('entry.changes', 1)
        ->assertJsonPath('entry.actor', 'Ines Halloran')
        ->assertJsonPath('entry.canUndo', false)
        ->assertJsonCount(0, 'changes');
    $this->postJson("/api/ledger/$old->id/undo")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Its details are kept no longer, so it cannot be undone. Change it by hand.');
    $this->postJson("/api/ledger/$new->id/undo")->assertOk();
    expect(DB::table('ledger_entries')->pluck('title')->implode(' ') . DB::table('ledger_entries')->pluck('sentence'))
        ->not->toContain('Oldname')
        ->toContain('Newname');
    // Said once.
    $this->artisan('vantrel:clean-up')->assertSuccessful();
    expect(DB::table('ledger_entries')->where('action', 'clean-up')->pluck('sentence')->all())->toBe([
        'Cleared away, as Settings say: the details of 1 entry of the Ledger.',
    ]);
});

it('keeps an entry of two schools for as long as one of them does', function (): void {
    DB::table('schools')
        ->where('id', $this->world->otherSchool)
        ->update(['keep_ledger_days' => 2000]);
    Carbon::setTestNow(now()->subDays(500));
    $entry = app(Ledger::class)->apply(new Plan('T', 'S', []), $this->world->school, null, Action::Transfer);
    Carbon::setTestNow();
    DB::table('ledger_schools')->insert(['school_id' => $this->world->otherSchool, 'entry_seq' => $entry->seq]);
    $this->artisan('vantrel:clean-up')->assertSuccessful();
    expect(DB::table('ledger_entries')->where('seq', $entry->seq)->value('title'))->toBe('T');
});

it(
    'clears away no message that waits for its day, and none of what was asked at the door and is unanswered',
    function (): void {
        $waits = ($this->message)($this->world->school, 900);
        DB::table('outgoing_messages')
            ->where('id', $waits)
            ->update(['state' => 'waiting']);
        $gone = ($this->message)($this->world->school, 900);
        $asking = fn(string $state): string => $this->world->insert(
            'family_askings',
            [
                'school_id' => $this->world->school,
                'given_name' => 'Layla',
                'family_name' => 'Haddad',
                'email' => 'a@x.example',
                'child_given' => 'Noor',
                'child_family' => 'Haddad',
                'child_birth_date' => '2017-05-04',
                'state' => $state,
                'made_at' => ($this->ago)(900),
                'answered_at' => $state === 'refused' ? ($this->ago)(900) : null,
            ],
            false,
        );
        $unanswered = $asking('waiting');
        $asking('refused');
        app(App\Retention\CleanUp::class)->school(App\Models\School::query()->findOrFail($this->world->school));
        expect(
            DB::table('outgoing_messages')
                ->whereIn('id', [$waits, $gone])
                ->pluck('id')
                ->all(),
        )
            ->toBe([$waits])
            ->and(DB::table('family_askings')->pluck('id')->all())
            ->toBe([$unanswered]);
    },
);
