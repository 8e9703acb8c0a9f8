<?php

declare(strict_types=1);

use App\Roll\KeptProblems;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// How far the accounts have come: what is shown is what the records say, counted another way.

beforeEach(function (): void {
    $this->world = World::make();
    $world = $this->world;
    DB::table('schools')
        ->where('id', $world->school)
        ->update(['time_zone' => 'America/Denver']);
    App\Platform\SchoolDay::forget();
    for ($i = 0; $i < 12; $i++) {
        $id = $world->student("Given$i Family$i", $i < 8 ? $world->section : null, ['grade' => $i % 2 ? '03' : '04']);
        DB::table('sign_ins')
            ->where('person_id', $id)
            ->update(['last_signed_in_at' => $i % 3 === 0 ? '2026-09-01 08:00:00' : null]);
        if ($i % 4 === 0) {
            $world->badge($id, "card-$i");
        }
        if ($i === 5) {
            $guardian = $world->person($world->school, 'guardian', 'A Guardian');
            $world->insert('guardianships', [
                'student_id' => $id,
                'guardian_id' => $guardian,
                'state' => 'connected',
            ]);
        }
    }
    $world->student('Gone Away', $world->section, ['state' => 'left', 'grade' => '03']);
    app(KeptProblems::class)->all($world->school);
    $this->uri = "/api/schools/$world->school/coverage";
    $this->lines = fn(string $query = ''): array => array_column(
        $this->actingAs($world->as('coordinator'))
            ->getJson("$this->uri$query")
            ->assertOk()
            ->json('lines'),
        null,
        'name',
    );
    $this->count = fn(string $extra, array $with = []): int => (int) DB::scalar(
        "select count(distinct p.id) from people p where p.kind = 'student' and p.state = 'active' and " .
            "p.school_id = ? and $extra",
        [$world->school, ...$with],
    );
});

it('counts as the records do, of the school, a grade and a section', function (): void {
    $signed = 'exists (select 1 from sign_ins s where s.person_id = p.id and s.last_signed_in_at is not null)';
    $carded =
        'exists (select 1 from sign_ins s join badges b on b.sign_in_id = s.id where s.person_id = p.id and ' .
        "b.state = 'live')";
    $connected = "exists (select 1 from guardianships g where g.student_id = p.id and g.state = 'connected')";
    $lines = ($this->lines)();
    $seated =
        "exists (select 1 from enrollments e where e.person_id = p.id and e.section_id = ? and e.role = 'student')";
    foreach (
        [
            'The whole school' => ['1 = 1', []],
            'Grade 3' => ["p.grade = '03'", []],
            'Grade 4' => ["p.grade = '04'", []],
            '3 Heron' => [$seated, [$this->world->section]],
        ]
        as $name => [$of, $with]
    ) {
        expect([
            $lines[$name]['students'],
            $lines[$name]['signedIn'],
            $lines[$name]['carded'],
            $lines[$name]['connected'],
        ])->toBe([
            ($this->count)($of, $with),
            ($this->count)("$of and $signed", $with),
            ($this->count)("$of and $carded", $with),
            ($this->count)("$of and $connected", $with),
        ]);
    }
    expect(array_column($lines, 'kind'))->toContain('school')->toContain('grade')->toContain('homeroom');
});

it('keeps a week as it was on its last day, by the school’s calendar', function (): void {
    $keep = function (string $at): void {
        Carbon::setTestNow($at);
        $this->artisan('vantrel:coverage')->assertSuccessful();
        Carbon::setTestNow();
    };
    // A Monday morning in Greenwich is still Sunday evening in Denver.
    $keep('2026-11-16 03:30:00');
    $keep('2026-11-17 04:30:00');
    $never = DB::table('people')->where('given_name', 'Given1')->value('id');
    DB::table('sign_ins')
        ->where('person_id', $never)
        ->update(['last_signed_in_at' => now()]);
    app(KeptProblems::class)->all($this->world->school);
    $keep('2026-11-20 04:30:00');
    $weeks = $this->actingAs($this->world->as('coordinator'))->getJson($this->uri)->assertOk()->json('weeks');
    // Looking counts this week too.
    expect(array_slice(array_column($weeks, 'week'), 0, 2))
        ->toBe(['2026-11-09', '2026-11-16'])
        ->and($weeks[1]['signedIn'])
        ->toBe($weeks[0]['signedIn'] + 1);
    $grade = $this->getJson("$this->uri?part=03")
        ->assertOk()
        ->json('weeks');
    expect($grade[0]['students'])->toBe(($this->count)("p.grade = '03'"));
    $this->getJson("$this->uri?part=" . urlencode("' or 1=1"))->assertStatus(422);
});

it('goes out as a sheet', function (): void {
    $csv = $this->actingAs($this->world->as('coordinator'))
        ->get("$this->uri/sheet?format=csv")
        ->assertOk()
        ->streamedContent();
    expect($csv)->toContain('"Of","What","Students"')->toContain('3 Heron')->not->toContain('Week of');
});

it('finds children under 13 whom nobody can be asked for', function (): void {
    $world = $this->world;
    $young = $world->student('Young One', null, ['birth_date' => now()->subYears(9)->format('Y-m-d')]);
    $older = $world->student('Older One', null, ['birth_date' => now()->subYears(14)->format('Y-m-d')]);
    $guardian = $world->person($world->school, 'guardian', 'No Contact');
    foreach ([$young, $older] as $child) {
        $world->insert('guardianships', ['student_id' => $child, 'guardian_id' => $guardian, 'state' => 'listed']);
    }
    $found = function (): array {
        app(KeptProblems::class)->all($this->world->school);

        return array_column(
            $this->actingAs($this->world->as('coordinator'))
                ->getJson("/api/schools/{$this->world->school}/people?kind=student&problem=under_13_unreached")
                ->assertOk()
                ->json('people'),
            'name',
        );
    };
    expect($found())->toContain('Young One')->not->toContain('Older One');
    $loop = fn(): ?array => collect(
        $this->getJson("/api/schools/{$this->world->school}/desk")->json('loops'),
    )->firstWhere('key', 'under_13_unreached');
    expect($loop()['since'])->toBe(now('America/Denver')->format('Y-m-d'));
    DB::table('people')
        ->where('id', $guardian)
        ->update(['phone' => '+12025550101']);
    expect($found())->not->toContain('Young One');
});

it(
    'counts anew in the background what was counted a while ago, and shows the last count until then',
    function (): void {
        $before = ($this->lines)()['The whole school']['signedIn'];
        $never = DB::table('people')->where('given_name', 'Given1')->value('id');
        DB::table('sign_ins')
            ->where('person_id', $never)
            ->update(['last_signed_in_at' => now()]);
        app(KeptProblems::class)->all($this->world->school);
        expect(($this->lines)()['The whole school']['signedIn'])->toBe($before);
        Illuminate\Support\Facades\Queue::fake();
        Carbon::setTestNow(now()->addMinutes(6));
        expect(($this->lines)()['The whole school']['signedIn'])->toBe($before);
        Illuminate\Support\Facades\Queue::assertPushed(App\Desk\Jobs\CountCoverage::class, 1);
        (new App\Desk\Jobs\CountCoverage($this->world->school))->handle(app(App\Desk\Coverage::class));
        expect(($this->lines)()['The whole school']['signedIn'])->toBe($before + 1);
        Carbon::setTestNow();
    },
);
