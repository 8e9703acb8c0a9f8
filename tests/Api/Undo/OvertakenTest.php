<?php

declare(strict_types=1);

use App\Ledger\Snapshots;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;

// Undo out of order, undo taken back, and plans that were overtaken.

beforeEach(fn() => readyToUndo($this));

it('takes no merge back from under another one', function (): void {
    $a = $this->world->people['student'];
    [$b, $c] = [$this->world->student('Wilhelmina Seabrigt'), $this->world->student('Wilhelmina Sebright')];
    // The second merge takes the survivor of the first.
    DB::table('sign_ins')
        ->where('person_id', $c)
        ->update(['last_signed_in_at' => '2026-09-01 08:00:00']);
    $before = World::checksum();
    $one = $this->ledger->apply(
        MergePlanner::plan(app(Snapshots::class)->forMerge([$a, $b]), [$a, $b])->plan,
        $this->world->school,
        null,
        Action::Merge,
    );
    $survivor = DB::table('people')
        ->whereIn('id', [$a, $b])
        ->where('state', 'active')
        ->value('id');
    $two = $this->ledger->apply(
        MergePlanner::plan(app(Snapshots::class)->forMerge([$survivor, $c]), [$survivor, $c])->plan,
        $this->world->school,
        null,
        Action::Merge,
    );
    expect(DB::table('people')->where('id', $survivor)->value('merged_into'))
        ->toBe($c)
        ->and(
            DB::table('people as l')
                ->join('people as s', 's.id', '=', 'l.merged_into')
                ->where('s.state', 'merged')
                ->count(),
        )
        ->toBe(0);
    $look = ($this->outlook)($one->id);
    expect($look['blocked'])->toBeTrue();
    ($this->undo)($one->id)->assertStatus(422);
    ($this->undo)($one->id, array_column($look['first'], 'id'))->assertOk()->assertJsonPath('kept', []);
    expect(World::checksum())
        ->toBe($before)
        ->and($look['first'])
        ->toHaveCount(1)
        ->and($look['first'][0]['id'])
        ->toBe($two->id);
});

it('counts what stays beyond what it names', function (): void {
    $rows = implode(
        '',
        array_map(
            fn(int $i): string => sprintf(
                "Child%s Other%s,2017-03-%02d,05%04d,3\n",
                chr(97 + ($i % 26)),
                chr(97 + intdiv($i, 26)),
                1 + ($i % 28),
                $i,
            ),
            range(1, 260),
        ),
    );
    $entry = ($this->list)("Name,Birth date,Student number,Grade\n$rows");
    $seq = DB::table('ledger_entries')->where('id', $entry)->value('seq');
    DB::table('people')
        ->where('version', $seq)
        ->update(['version' => $seq + 1000]);
    $look = ($this->outlook)($entry);
    expect($look['staysCount'])
        ->toBe(520)
        ->and($look['stays'])
        ->toHaveCount(201)
        ->and(end($look['stays']))
        ->toBe('and 60 more records: changed since');
});

// Plans that refer to what others change meanwhile.

it('merges nobody into an account that has just been merged away', function (): void {
    $a = $this->world->people['student'];
    [$b, $c] = [$this->world->student('Noor Haddad'), $this->world->student('Kai Wu')];
    $ab = ($this->merge)($a, $b);
    $this->ledger->apply(($this->merge)($b, $c), $this->world->school, null, Action::Merge);
    $before = World::checksum();
    expect(fn() => $this->ledger->apply($ab, $this->world->school, null, Action::Merge))
        ->toThrow(fn(StalePlan $e) => expect($e->changed)->toBe(['Noor Haddad has been merged into another account']))
        ->and(World::checksum())
        ->toBe($before);
});

it('ties nothing to what was merged, archived or taken away since', function (string $what, string $fault): void {
    $student = $this->world->student('Noor Haddad');
    $plan = new PlanBuilder();
    $plan->insert(
        Entity::Enrollment,
        (string) Str::ulid(),
        [
            'section_id' => $this->world->section,
            'person_id' => $student,
            'role' => 'student',
            'begins_on' => '2026-09-01',
            'ends_on' => null,
            'source' => 'list',
            'join_code_id' => null,
            'came_at' => null,
        ],
        'row 2',
    );
    $overtaken = $plan->build('A list', 'Enrolls one.');
    match ($what) {
        'merged' => DB::table('people')
            ->where('id', $student)
            ->update(['state' => 'merged', 'merged_into' => $this->world->people['student']]),
        'archived' => DB::table('sections')
            ->where('id', $this->world->section)
            ->update(['state' => 'archived', 'archived_on' => '2026-09-01']),
        default => DB::table('sign_ins')->where('person_id', $student)->delete() +
            DB::table('people')->where('id', $student)->delete(),
    };
    $before = World::checksum();
    expect(fn() => $this->ledger->apply($overtaken, $this->world->school, null, Action::Intake))
        ->toThrow(fn(StalePlan $e) => expect($e->changed)->toBe([$fault]))
        ->and(World::checksum())
        ->toBe($before);
})->with([
    ['merged', 'Noor Haddad has been merged into another account'],
    ['archived', '3 Heron has been archived'],
    ['gone', 'a record is gone'],
]);

it('ends an enrollment in a section that was archived, which brings nothing new into it', function (): void {
    $enrollment = ($this->row)(
        Enrollment::class,
        (string) DB::table('enrollments')->where('person_id', $this->world->people['student'])->value('id'),
    );
    DB::table('sections')
        ->where('id', $this->world->section)
        ->update(['state' => 'archived', 'archived_on' => '2026-09-01']);
    $plan = new PlanBuilder();
    $plan->update($enrollment, ['ends_on' => '2026-09-02'], 'left');
    $this->ledger->apply($plan->build('One out', 'One goes.'), $this->world->school, null, Action::TakeOff);
    expect(DB::table('enrollments')->where('id', $enrollment->id)->value('ends_on'))->toBe('2026-09-02');
});

it('applies after midnight what was looked at before, and no plan of last week', function (): void {
    $this->travelTo('2026-09-01 23:50:00');
    $send = fn(): string => $this->post(
        "/api/schools/{$this->world->school}/intakes",
        [
            'files' => [
                UploadedFile::fake()->createWithContent(
                    'list.csv',
                    "Name,Birth date,Student number,Grade,Section\nCorin Quill,2017-03-03,040001,3,3 Heron\n",
                ),
            ],
        ],
        ['Accept' => 'application/json'],
    )
        ->assertOk()
        ->json('id');
    $id = $send();
    $fingerprint = $this->getJson("/api/intakes/$id")->json('fingerprint');
    $this->travelTo('2026-09-02 00:20:00');
    $this->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])->assertOk();
    $this->getJson("/api/intakes/$id")->assertJsonPath('state', 'applied');
    ($this->undo)((string) DB::table('ledger_entries')->orderByDesc('seq')->value('id'))->assertOk();
    $this->travelTo('2026-09-10 08:00:00');
    $this->flushSession();
    $this->actingAs($this->world->as('coordinator'));
    $list = $this->getJson("/api/intakes/$id")
        ->assertJsonPath('state', 'planned')
        ->json();
    $this->postJson("/api/intakes/$id/apply", ['fingerprint' => $list['fingerprint']])->assertOk();
    $this->getJson("/api/intakes/$id")
        ->assertJsonPath('state', 'planned')
        ->assertJsonPath('message', fn(string $m): bool => str_contains($m, 'Since you looked'));
});

it('tells sections apart by signs, takes format characters out, and cuts no long name to another’s', function (): void {
    $long = str_repeat('Reading support and more ', 4);
    ($this->list)(
        "Name,Birth date,Student number,Grade,Section\nCorin Quill,2017-03-03,040001,3,Art 🎨\nNova " .
            "Rook,2017-03-04,040002,3,Art ⚽\nPia Wren,2017-03-05,040003,3,Mu\u{AD}sic\nIda " .
            "\u{2066}Lark\u{2069},2017-03-06,040004,3,Music\nUna Teal,2017-03-07,040005,3,{$long}one\nEli " .
            "Swift,2017-03-08,040006,3,{$long}two\n",
    );
    expect(
        DB::table('sections')
            ->where('school_id', $this->world->school)
            ->where('name', 'like', '%Art %')
            ->orderBy('name')
            ->pluck('name')
            ->all(),
    )
        ->toHaveCount(2)
        ->and(DB::table('sections')->where('name', 'Music')->count())
        ->toBe(1)
        ->and(DB::table('people')->where('number', '040004')->value('family_name'))
        ->toBe('Lark')
        ->and(DB::table('sections')->where('name', 'like', 'Reading support%')->count())
        ->toBe(0)
        ->and(
            DB::table('enrollments as e')
                ->join('people as p', 'p.id', '=', 'e.person_id')
                ->whereIn('p.number', ['040005', '040006'])
                ->count(),
        )
        ->toBe(0)
        ->and(json_encode(json_decode((string) DB::table('imports')->value('summary'))->warnings))
        ->toContain('Shorten it in the list');
});

it(
    'makes a section anew whose name was archived this year, says so, and lets the archive be undone after it',
    function (): void {
        $before = World::checksum();
        $look = $this->getJson("/api/sections/{$this->world->section}/archive")->json();
        $this->postJson("/api/sections/{$this->world->section}/archive", [
            'seed' => $look['seed'],
            'fingerprint' => $look['fingerprint'],
        ])->assertOk();
        $archive = (string) DB::table('ledger_entries')->orderByDesc('seq')->value('id');
        $list = ($this->list)(
            "Name,Birth date,Student number,Grade,Homeroom\nCorin Quill,2017-03-03,040001,3,3 Heron\n",
        );
        $sections = DB::table('sections')->where('name', '3 Heron')->orderBy('state')->get();
        expect($sections->pluck('state')->all())
            ->toBe(['open', 'archived'])
            ->and(DB::table('enrollments')->where('section_id', $sections[0]->id)->count())
            ->toBe(1)
            ->and(json_encode(json_decode((string) DB::table('imports')->value('summary'))->warnings))
            ->toContain('this makes another section of that name');
        // The name is taken for as long as the new one is there.
        expect(($this->outlook)($archive)['stays'])
            ->toContain('3 Heron: its place has been taken since')
            ->and(array_column(($this->outlook)($archive)['first'], 'id'))
            ->toBe([$list]);
        ($this->undo)($archive, [$list])
            ->assertOk()
            ->assertJsonPath('kept', []);
        expect(World::checksum())->toBe($before);
    },
);

// Every answer is true.

it('does not say that nothing was changed once it was', function (): void {
    $this->withExceptionHandling();
    Illuminate\Support\Facades\Event::listen(App\Ledger\EntryWritten::class, function (): void {
        DB::afterCommit(function (): void {
            throw new RuntimeException('the network went');
        });
    });
    $this->postJson("/api/schools/{$this->world->school}/settings", ['keep_lists_days' => 33])
        ->assertStatus(500)
        ->assertJsonPath('detail', 'It was done and is in the Ledger; only the answer failed. Load the page again.');
    expect(DB::table('schools')->where('id', $this->world->school)->value('keep_lists_days'))->toBe(33);
});

it('says that nothing was changed where that is so, and that others are at it', function (): void {
    Illuminate\Support\Facades\Event::listen(App\Ledger\EntryWritten::class, function (): void {
        throw $this->failure;
    });
    $this->failure = new RuntimeException('within');
    $this->postJson("/api/schools/{$this->world->school}/settings", ['keep_lists_days' => 33])
        ->assertStatus(500)
        ->assertJsonPath('detail', fn(string $d): bool => str_contains($d, 'Nothing was changed'));
    expect(DB::table('schools')->where('id', $this->world->school)->value('keep_lists_days'))->not->toBe(33);
    $deadlock = new PDOException('Deadlock found when trying to get lock; try restarting transaction');
    $deadlock->errorInfo = ['40001', 1213, ''];
    $this->failure = new Illuminate\Database\QueryException('mariadb', 'update x', [], $deadlock);
    $this->postJson("/api/schools/{$this->world->school}/settings", ['keep_lists_days' => 33])
        ->assertStatus(503)
        ->assertJsonPath(
            'detail',
            'Others are changing the same just now. Nothing was changed; try again in a moment.',
        );
});
