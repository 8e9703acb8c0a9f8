<?php

declare(strict_types=1);

use App\Ledger\Snapshots;
use App\Platform\SchoolDay;
use App\Roll\KeptProblems;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Support\World;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records;
use Vantrel\Core\Roll\AccountProblem;
use Vantrel\Core\Roll\AccountsRead;

// What the Roll keeps of people is what the core says of their records: both are asked, and have to agree.

beforeEach(function (): void {
    $this->world = World::make();
    $this->actingAs($this->world->as('coordinator'));
    $this->uri = "/api/schools/{$this->world->school}/people";
    // Everything that can be so or otherwise of 120 students, drawn at random.
    $random = new Randomizer(new Mt19937(1127));
    $this->some = fn(array $of): mixed => $of[$random->getInt(0, count($of) - 1)];
    $id = fn(string $kind, int $n): string => '01K3CNQ' . str_pad(strtoupper($kind), 7, '0') . sprintf('%012d', $n);
    $sections = DB::table('sections')->where('school_id', $this->world->school)->get();
    App\Ledger\WriteGuard::within(function () use ($id, $sections): void {
        $guardian = $id('GG', 1);
        $this->person = $person = fn(string $id, string $kind, int $n): array => [
            'id' => $id,
            'version' => 1,
            'school_id' => $this->world->school,
            'kind' => $kind,
            'given_name' => ($this->some)(['Ada', 'Bo', 'Cleo', 'Éva']),
            'family_name' => ($this->some)(['Abel', 'Birk', 'Çelik']),
            'search_name' => "x $n",
            'grade' => $kind === 'student' ? ($this->some)(['PK', 'KG', '01', '09', '10', null]) : null,
            'number' => $kind === 'student' ? ($this->some)([null, "00$n", '0' . ($n <= 121 ? $n ^ 1 : $n)]) : null,
            'birth_date' => ($this->some)([null, '2015-08-03', '2010-02-28', '2022-06-01']),
            'email' => ($this->some)([null, "p$n@lanternfield.example", "p$n@shoremail.example"]),
            'email_state' => 'claimed',
            'state' => ($this->some)(['active', 'active', 'left']),
        ];
        DB::table('people')->insert($person($guardian, 'guardian', 0));
        for ($n = 1; $n <= 120; $n++) {
            $student = $id('ST', $n);
            DB::table('people')->insert($person($student, 'student', $n));
            for ($e = ($this->some)([0, 1, 2]); $e > 0; $e--) {
                DB::table('enrollments')->insert([
                    'id' => $id("EN$e", $n),
                    'version' => 1,
                    'section_id' => ($this->some)($sections->pluck('id')->all()),
                    'person_id' => $student,
                    'role' => 'student',
                    'begins_on' => ($this->some)(['2020-01-01', '2090-01-01']),
                    'ends_on' => ($this->some)(['2020-01-01', '2021-01-01', '2091-01-01']),
                    'source' => 'list',
                ]);
            }
            for ($s = ($this->some)([0, 1, 2]); $s > 0; $s--) {
                DB::table('sign_ins')->insert([
                    'id' => $id("SI$s", $n),
                    'version' => 1,
                    'person_id' => $student,
                    'user_name' => "drawn.$n.$s",
                    'last_signed_in_at' => ($this->some)([null, '2026-09-01 08:00:00']),
                ]);
                if (($this->some)([true, false])) {
                    DB::table('badges')->insert([
                        'id' => $id("BA$s", $n),
                        'version' => 1,
                        'sign_in_id' => $id("SI$s", $n),
                        'token_hash' => hash('sha256', "$n $s"),
                        'state' => ($this->some)(['live', 'lost']),
                        'made_at' => '2026-08-01 08:00:00',
                    ]);
                }
            }
            if (($this->some)([true, false])) {
                DB::table('guardianships')->insert([
                    'id' => $id('GU', $n),
                    'version' => 1,
                    'student_id' => $student,
                    'guardian_id' => $guardian,
                    'state' => ($this->some)(['listed', 'invited', 'connected', 'refused', 'ended']),
                ]);
            }
        }
    });
});

it('keeps whom the core finds in records, for each problem', function (AccountProblem $problem): void {
    $snapshots = app(Snapshots::class);
    $all = fn(string $kind): array => array_column($snapshots->list($kind, fn($q) => $q), null, 'id');
    $records = new Snapshot([
        'schools' => $all(Records\School::class),
        'people' => $all(Records\Person::class),
        'sections' => $all(Records\Section::class),
        'enrollments' => $all(Records\Enrollment::class),
        'sign_ins' => $all(Records\SignIn::class),
        'badges' => $all(Records\Badge::class),
        'guardianships' => $all(Records\Guardianship::class),
    ]);
    $today = SchoolDay::today($this->world->school);
    $expected = [];
    foreach ($records->all(Records\Person::class) as $person) {
        if (
            $person->kind() === Records\PersonKind::Student &&
            $problem->isOf(AccountsRead::facts($records, $person, $today))
        ) {
            $expected[] = $person->id;
        }
    }
    sort($expected);
    app(KeptProblems::class)->all($this->world->school);
    $kept = DB::table('roll_problems')
        ->where('problem', $problem->value)
        ->orderBy('person_id')
        ->pluck('person_id')
        ->all();
    expect($kept)
        ->toBe($expected)
        ->and(count($kept))
        ->toBeGreaterThan(3)
        ->and(count($kept))
        ->toBeLessThan(DB::table('people')->where('kind', 'student')->count());
})->with(AccountProblem::cases());

it('sorts on the server, page after page, up and down, with everybody once', function (string $sort, bool $down): void {
    // More than two pages.
    App\Ledger\WriteGuard::within(
        fn() => DB::table('people')->insert(
            array_map(
                fn(int $n): array => ($this->person)(sprintf('01K3CNQ000MANY%012d', $n), 'student', 200 + $n),
                range(1, 450),
            ),
        ),
    );
    $key = match ($sort) {
        'grade' => fn(stdClass $p): int => (int) array_search(
            $p->grade,
            [null, 'PK', 'KG', '01', '02', '03', '04', '05', '06', '07', '08', '09', '10'],
            true,
        ),
        // Letters in front: what is compared is text, and the collation puts signs before digits.
        'number' => fn(stdClass $p): string => "n$p->number",
        'email' => fn(stdClass $p): string => str_replace(['@', '.'], ['!', '!'], (string) $p->email),
        default => fn(stdClass $p): string => '',
    };
    $read = [];
    $after = '';
    do {
        $page = $this->getJson(
            "$this->uri?kind=student&sort=$sort&down=" . ($down ? 'true' : 'false') . "&after=$after",
        )
            ->assertOk()
            ->json();
        array_push($read, ...array_column($page['people'], 'id'));
        $after = urlencode((string) $page['next']);
    } while ($page['next'] !== null);
    $people = DB::table('people')->whereIn('id', $read)->get()->keyBy('id');
    expect(count($read))
        ->toBe(count(array_unique($read)))
        ->toBe(
            DB::table('people')
                ->where('school_id', $this->world->school)
                ->where('kind', 'student')
                ->where('state', 'active')
                ->count(),
        );
    $values = array_map(fn(string $id) => $key($people[$id]), $read);
    $sorted = $values;
    $down ? rsort($sorted) : sort($sorted);
    expect($values)->toBe($sorted);
    if ($sort === 'name') {
        $names = array_map(fn(string $id): string => $people[$id]->family_name, $read);
        expect($down ? $names[0] >= end($names) : $names[0] <= end($names))->toBeTrue();
    }
})
    ->with(['name', 'grade', 'number', 'email'])
    ->with([true, false]);

it('takes no order or problem that there is none of', function (): void {
    $this->getJson("$this->uri?sort=password")->assertJsonValidationErrors(['sort']);
    $this->getJson("$this->uri?problem=none")->assertJsonValidationErrors(['problem']);
    // A place that nobody gave is the beginning.
    $this->getJson("$this->uri?after=" . base64_encode('["x"]'))->assertOk();
    $this->getJson("$this->uri?after=%00%ff")->assertOk();
    $this->getJson("$this->uri?after=" . base64_encode('[[1],{"a":2},null,"x"]'))->assertOk();
});
