<?php

declare(strict_types=1);

use App\Models\School;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Area;
use Vantrel\Core\Plan\Plan;

beforeEach(function (): void {
    readyForTheLedger($this);
    $this->titles = fn(string $query): array => array_column(
        $this->actingAs($this->world->as('coordinator'))
            ->getJson("/api/schools/{$this->world->school}/ledger?$query")
            ->assertOk()
            ->json('entries'),
        'title',
    );
    $this->enter = function (string $title, Action $action, string $at, string $as = ''): void {
        Carbon::setTestNow($at);
        $this->ledger->apply(
            new Plan($title, "$title.", []),
            $this->world->school,
            $as === '' ? null : $this->world->as($as),
            $action,
        );
        Carbon::setTestNow();
    };
});

it('gives the entries of an area, of somebody, of a day, and of all three', function (): void {
    School::query()
        ->whereKey($this->world->school)
        ->update(['time_zone' => 'America/Denver']);
    App\Platform\SchoolDay::forget();
    ($this->enter)('A list', Action::Intake, '2026-10-05 15:00:00', 'coordinator');
    ($this->enter)('By night', Action::Intake, '2026-10-06 05:59:59', 'coordinator');
    ($this->enter)('Next day', Action::Intake, '2026-10-06 06:00:00');
    ($this->enter)('A merge', Action::Merge, '2026-10-06 15:00:00', 'coordinator');
    $coordinator = $this->world->people['coordinator'];
    expect(($this->titles)('area=intake'))
        ->toBe(['Next day', 'By night', 'A list'])
        ->and(($this->titles)('area=look_alikes'))
        ->toBe(['A merge'])
        ->and(($this->titles)("actor=$coordinator&from=2026-10-01"))
        ->toBe(['A merge', 'By night', 'A list'])
        ->and(($this->titles)('actor=vantrel&area=intake'))
        ->toBe(['Next day'])
        // Days are the school's: six hours behind in October.
        ->and(($this->titles)('from=2026-10-05&to=2026-10-05'))
        ->toBe(['By night', 'A list'])
        ->and(($this->titles)("from=2026-10-06&to=2026-10-06&actor=$coordinator"))
        ->toBe(['A merge'])
        ->and(($this->titles)('area=settings'))
        ->toBe([]);
    $this->getJson("/api/schools/{$this->world->school}/ledger")
        ->assertJsonFragment(['id' => $coordinator, 'name' => 'Ines Halloran'])
        ->assertJsonFragment(['id' => 'vantrel', 'name' => 'Vantrel']);
});

it('gives what was done to a person or a section, by themselves and by what belongs to them', function (): void {
    $student = $this->world->people['student'];
    $this->ledger->apply(somePlan($this->world), $this->world->school, $this->world->as('coordinator'), Action::Place);
    ($this->enter)('Nothing of theirs', Action::Settings, '2026-10-05 15:00:00', 'coordinator');
    $as = $this->actingAs($this->world->as('coordinator'));
    $as->postJson("/api/sections/{$this->world->section}/code")->assertOk();
    expect(($this->titles)("about=$student"))
        ->toBe(['Some plan'])
        ->and(($this->titles)("about={$this->world->section}"))
        ->toHaveCount(1)
        ->not->toContain('Some plan');
    $as->getJson("/api/schools/{$this->world->school}/ledger?about=$student")->assertJsonPath(
        'about',
        'Mina Seabright',
    );
    $as->getJson("/api/schools/{$this->world->school}/ledger?about={$this->world->section}")->assertJsonPath(
        'about',
        '3 Heron',
    );
});

it('knows nothing of what another school has, and says what it cannot read', function (): void {
    $as = $this->actingAs($this->world->as('coordinator'));
    $school = "/api/schools/{$this->world->school}/ledger";
    $elsewhere = DB::table('people')->where('school_id', '!=', $this->world->school)->value('id');
    expect($elsewhere)->not->toBeNull();
    foreach (["about=$elsewhere", 'about=' . ulid()] as $query) {
        $as->getJson("$school?$query")->assertNotFound();
        $as->getJson("$school/sheet?format=csv&$query")->assertNotFound();
    }
    foreach (['area=nowhere', 'from=yesterday', 'actor=me', 'about=1'] as $query) {
        $as->getJson("$school?$query")->assertStatus(422);
    }
});

it('hands the ledger out as a sheet, by entry or by field, in the same bounds', function (): void {
    ($this->enter)('=A list', Action::Intake, '2026-10-05 15:00:00', 'coordinator');
    $entry = $this->ledger->apply(
        somePlan($this->world),
        $this->world->school,
        $this->world->as('coordinator'),
        Action::Place,
    );
    $this->ledger->undo($entry, $this->world->as('coordinator'));
    $sheet = fn(string $query): array => array_map(
        fn(string $line): array => str_getcsv($line, escape: ''),
        explode(
            "\n",
            trim(
                (string) $this->actingAs($this->world->as('coordinator'))
                    ->get("/api/schools/{$this->world->school}/ledger/sheet?$query")
                    ->assertOk()
                    ->streamedContent(),
                "\xEF\xBB\xBF\n",
            ),
        ),
    );
    $entries = $sheet('format=csv');
    expect($entries[0][4])
        ->toBe('What')
        ->and(array_column($entries, 4))
        ->toContain('Some plan')
        ->toContain("'=A list")
        ->and($entries[1][7])
        ->not->toBe('')
        ->and($entries[1][8])
        ->toBe('Ines Halloran')
        ->and(array_column($sheet('format=csv&area=intake'), 4))
        ->toBe(['What', "'=A list"]);
    $records = $sheet('format=csv&records=true&area=sections');
    $given = array_values(
        array_filter($records, fn(array $r): bool => $r[4] === 'person' && $r[6] === 'given name' && $r[7] !== ''),
    );
    expect(array_slice($given[0], 5, 4))->toBe(['Wilhelmina Seabright', 'given name', 'Wilhelmina', 'Mina']);
});

it('puts every action into an area, but a repeat', function (): void {
    $areas = array_merge(...array_map(fn(Area $a): array => $a->actions(), Area::cases()));
    expect(count($areas))
        ->toBe(count(Action::cases()) - 1)
        ->and(Action::Redo->area())
        ->toBeNull();
});
