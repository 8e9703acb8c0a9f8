<?php

declare(strict_types=1);

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\PrintRoom\Legibility;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\School;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Sections\ManySections;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;
use Vantrel\Core\Sections\NewSection;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Settings\SchoolSettings;
use Vantrel\Core\Settings\SchoolYears;
use Vantrel\Core\Staffing\Leads;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;
use Vantrel\Core\Values\GradeLevel;

/** @param  array<string, string|int|null>  $more */
function place(string $id, string $name, array $more = []): Section
{
    return new Section($id, 1, [
        'name' => $name,
        'state' => 'open',
        'period' => null,
        'seats' => null,
        'school_year_id' => 'y',
        ...$more,
    ]);
}

function mover(string $id, string $state = 'active'): Person
{
    return new Person($id, 1, [
        'given_name' => ucfirst($id),
        'family_name' => 'Rao',
        'kind' => 'student',
        'state' => $state,
    ]);
}

function in(string $id, string $person, string $section, string $from = '2026-08-24', ?string $to = null): Enrollment
{
    return new Enrollment($id, 1, [
        'person_id' => $person,
        'section_id' => $section,
        'begins_on' => $from,
        'ends_on' => $to,
        'role' => 'student',
        'source' => 'list',
    ]);
}

function changeWords(Plan $plan): array
{
    return array_map(
        fn(Change $c): string => $c->inserts()
            ? "in {$c->after['section_id']} {$c->after['begins_on']}"
            : "out {$c->id} {$c->after['ends_on']}",
        $plan->changes,
    );
}

$ids = new Ids('01K3CNQ0000000000000000000');
$heron = place('h', '3 Heron');
$plover = place('p', '3 Plover', ['seats' => 2, 'period' => '2']);
$art = place('a', 'Art', ['period' => '2']);

it('moves as of a day: out of one and into the other on the same day, and the past stays', function () use (
    $ids,
    $heron,
    $plover,
): void {
    $plan = Moves::plan(
        MoveKind::Move,
        [mover('uma')],
        $heron,
        $plover,
        ['uma' => [in('e1', 'uma', 'h')]],
        ['h' => $heron, 'p' => $plover],
        0,
        '2026-10-05',
        $ids,
    );
    expect(changeWords($plan))
        ->toBe(['out e1 2026-10-05', 'in p 2026-10-05'])
        ->and($plan->sentence)
        ->toContain('1 student moves from 3 Heron to 3 Plover');
});

it('leaves those as they are who are not there, or are there already', function () use ($ids, $heron, $plover): void {
    $own = ['uma' => [in('e1', 'uma', 'h', '2026-08-24', '2026-09-01')], 'ada' => [in('e2', 'ada', 'p')], 'left' => []];
    expect(Moves::plan(MoveKind::Move, [mover('uma')], $heron, $plover, $own, [], 0, '2026-10-05', $ids)->isEmpty())
        ->toBeTrue()
        ->and(Moves::plan(MoveKind::Also, [mover('ada')], null, $plover, $own, [], 0, '2026-10-05', $ids)->rows[0]->why)
        ->toBe('in 3 Plover already')
        ->and(
            Moves::plan(
                MoveKind::Also,
                [mover('left', 'left')],
                null,
                $plover,
                $own,
                [],
                0,
                '2026-10-05',
                $ids,
            )->isEmpty(),
        )
        ->toBeTrue();
});

it('moves one who is in both out of the one and not in twice', function () use ($ids, $heron, $plover): void {
    $plan = Moves::plan(
        MoveKind::Move,
        [mover('uma')],
        $heron,
        $plover,
        ['uma' => [in('e1', 'uma', 'h'), in('e2', 'uma', 'p')]],
        [],
        0,
        '2026-10-05',
        $ids,
    );
    expect(changeWords($plan))->toBe(['out e1 2026-10-05']);
});

it('warns of clashing periods and of too few seats', function () use ($ids, $plover, $art): void {
    $plan = Moves::plan(
        MoveKind::Also,
        [mover('uma'), mover('ada')],
        null,
        $plover,
        ['uma' => [in('e1', 'uma', 'a')]],
        ['a' => $art, 'p' => $plover],
        1,
        '2026-10-05',
        $ids,
    );
    expect($plan->warnings)->toBe([
        'Uma Rao: period 2 clashes with Art',
        '3 Plover would have 3 students for 2 seats.',
    ]);
    $swap = Moves::plan(
        MoveKind::Move,
        [mover('uma')],
        $art,
        $plover,
        ['uma' => [in('e1', 'uma', 'a')]],
        ['a' => $art, 'p' => $plover],
        0,
        '2026-10-05',
        $ids,
    );
    expect($swap->warnings)->toBe([]);
});

it('never ends an enrollment before it begins', function () use ($ids, $heron): void {
    $plan = Moves::plan(
        MoveKind::Remove,
        [mover('uma')],
        $heron,
        null,
        ['uma' => [in('e1', 'uma', 'h', '2026-10-10')]],
        [],
        0,
        '2026-10-05',
        $ids,
    );
    expect(changeWords($plan))->toBe(['out e1 2026-10-10']);
});

it('refuses archived sections, the same section and nobody', function () use ($ids, $heron): void {
    $shut = place('x', 'Old', ['state' => 'archived']);
    expect(fn() => Moves::plan(MoveKind::Move, [mover('uma')], $heron, $shut, [], [], 0, '2026-10-05', $ids))
        ->toThrow(Refusal::class, 'archived')
        ->and(fn() => Moves::plan(MoveKind::Remove, [mover('uma')], $shut, null, [], [], 0, '2026-10-05', $ids))
        ->toThrow(Refusal::class, 'archived')
        ->and(fn() => Moves::plan(MoveKind::Move, [mover('uma')], $heron, $heron, [], [], 0, '2026-10-05', $ids))
        ->toThrow(Refusal::class)
        ->and(fn() => Moves::plan(MoveKind::Move, [mover('uma')], $heron, null, [], [], 0, '2026-10-05', $ids))
        ->toThrow(Refusal::class, 'come into')
        ->and(fn() => Moves::plan(MoveKind::Remove, [], $heron, null, [], [], 0, '2026-10-05', $ids))
        ->toThrow(Refusal::class, 'at least one');
});

it('is empty when made again, and undone by its images, for moves drawn at random', function () use (
    $heron,
    $art,
): void {
    $random = new KeyedStream(str_repeat('k', 32), 'moves');
    $sections = ['h' => $heron, 'p' => place('p', '3 Plover', ['period' => '2']), 'a' => $art];
    for ($round = 0; $round < 60; $round++) {
        $people = $rows = [];
        for ($i = 0; $i < 1 + $random->below(6); $i++) {
            $people[] = mover("s$i");
            foreach (array_keys($sections) as $at) {
                if ($random->below(2) === 0) {
                    $rows["e$i$at"] = in(
                        "e$i$at",
                        "s$i",
                        $at,
                        '2026-08-24',
                        $random->below(3) === 0 ? '2026-09-0' . (1 + $random->below(9)) : null,
                    );
                }
            }
        }
        $snapshot = new Snapshot([Entity::Enrollment->value => $rows]);
        $kind = MoveKind::cases()[$random->below(3)];
        $make = fn(Snapshot $s, Ids $ids): Plan => Moves::plan(
            $kind,
            $people,
            $kind === MoveKind::Also ? null : $heron,
            $kind === MoveKind::Remove ? null : $sections['p'],
            $s->by(Enrollment::class, 'person_id'),
            $sections,
            0,
            '2026-09-05',
            $ids,
        );
        $plan = $make($snapshot, new Ids('01K3CNQ0000000000000000000'));
        $after = $snapshot->with($plan);
        expect($make($after, new Ids('01K3CNQ0000000000000000001'))->isEmpty())
            ->toBeTrue()
            ->and($after->without($plan)->all(Enrollment::class))
            ->toEqual($snapshot->all(Enrollment::class));
        foreach ($people as $person) {
            foreach (array_keys($sections) as $at) {
                $held = array_filter(
                    $after->by(Enrollment::class, 'person_id')[$person->id] ?? [],
                    fn(Record $e): bool => $e->field('section_id') === $at &&
                        $e->field('begins_on') <= '2026-09-05' &&
                        ($e->field('ends_on') === null || $e->field('ends_on') > '2026-09-05'),
                );
                expect(count($held))->toBeLessThanOrEqual(1);
            }
        }
    }
});

it('names sections by a pattern, and lets empty places go', function (
    string $pattern,
    array $values,
    string $name,
): void {
    expect(SectionNames::fill(SectionNames::check($pattern), $values))->toBe($name);
})->with([
    ['{subject} {grade}{group}', ['subject' => 'Marine science', 'grade' => '8', 'group' => 'A'], 'Marine science 8A'],
    ['{subject} {grade}{group}', ['subject' => 'Choir'], 'Choir'],
    ['{grade} {group} ({period})', ['grade' => '3', 'group' => 'Heron'], '3 Heron'],
    ['{subject} - {year}', ['subject' => 'Art', 'year' => '2026-27'], 'Art - 2026-27'],
    ['{subject} - {year}', ['subject' => 'Art'], 'Art'],
]);

it('refuses patterns with places that are none, or without any', function (): void {
    expect(fn() => SectionNames::check('{teacher}'))
        ->toThrow(Refusal::class, '“{teacher}” is not a place')
        ->and(fn() => SectionNames::check('Class'))
        ->toThrow(Refusal::class, 'at least one place');
    expect(
        array_column(
            SectionNames::series(
                '{subject} {grade}{group}',
                'Art',
                [GradeLevel::of(1), GradeLevel::of(2)],
                ['A', 'B'],
                '',
                '',
            ),
            0,
        ),
    )
        ->toBe(['Art 1A', 'Art 1B', 'Art 2A', 'Art 2B'])
        ->and(array_column(SectionNames::series('{subject} {grade}{group}', 'Choir', [], [], '', ''), 0))
        ->toBe(['Choir']);
});

it('makes many sections from a pasted list, each once, with leads it can tell', function () use ($ids): void {
    $staff = [
        new Person('t1', 1, [
            'given_name' => 'Petra',
            'family_name' => 'Okonjo',
            'email' => 'petra@lanternfield.example',
        ]),
        new Person('t2', 1, ['given_name' => 'Jo', 'family_name' => 'Ek', 'email' => null]),
        new Person('t3', 1, ['given_name' => 'Jo', 'family_name' => 'Ek', 'email' => null]),
    ];
    $wanted = ManySections::fromText(
        "Art 8A\t8\t2\t24\tPetra Okonjo\nart 8a\n\nMusic 8A;8;;;petra@lanternfield.example\nDrama;;;;Jo Ek\n3 Heron",
        'class',
    );
    $plan = ManySections::plan(
        'school',
        'y',
        $wanted,
        [place('h', '3 Heron')],
        $staff,
        [],
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100),
        $ids,
        '2026-08-24',
        '2026-08-20 10:00:00',
    );
    $made = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->entity === Entity::Section));
    expect(
        array_map(
            fn(Change $c): array => [$c->after['name'], $c->after['grade'], $c->after['period'], $c->after['seats']],
            $made,
        ),
    )
        ->toBe([['Art 8A', '08', '2', 24], ['Music 8A', '08', null, null], ['Drama', null, null, null]])
        ->and($plan->countOf(Entity::Enrollment))
        ->toBe(2)
        ->and($plan->countOf(Entity::JoinCode))
        ->toBe(3)
        ->and($plan->rows[3]->problems[0]->message)
        ->toContain('Several are called “Jo Ek”')
        ->and(array_map(fn($r): string => $r->verdict->value, $plan->rows))
        ->toBe(['new', 'same', 'new', 'new', 'same']);
    expect(fn() => ManySections::fromText("Art\tgrade x", 'class'))
        ->toThrow(Refusal::class, 'Line 1')
        ->and(fn() => ManySections::fromText("Art\n\nB;8;;lots", 'class'))
        ->toThrow(Refusal::class, 'Line 3');
});

it('takes last year’s sections with their teachers and without substitutes', function () use ($ids): void {
    $old = place('old', 'Art 8A', ['grade' => '08', 'kind' => 'class']);
    $teachers = [
        'old' => [
            new Enrollment('e1', 1, ['person_id' => 't1', 'role' => 'lead']),
            new Enrollment('e2', 1, ['person_id' => 't2', 'role' => 'substitute']),
        ],
    ];
    $plan = ManySections::plan(
        'school',
        'y2',
        [new NewSection('Art 8A', 'class', '08', null, null, '', $old)],
        [],
        [],
        $teachers,
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100),
        $ids,
        '2027-08-23',
        '2026-08-20 10:00:00',
    );
    expect($plan->changes[0]->after['carried_from'])
        ->toBe('old')
        ->and($plan->countOf(Entity::Enrollment))
        ->toBe(1)
        ->and($plan->changes[1]->after)
        ->toMatchArray(['person_id' => 't1', 'role' => 'lead', 'begins_on' => '2027-08-23']);
});

it('hands the lead over, who led becomes a co-teacher, and a co-teacher can become the lead', function () use (
    $ids,
    $heron,
): void {
    $staff = fn(string $id, string $state = 'active'): Person => new Person($id, 1, [
        'kind' => 'staff',
        'state' => $state,
        'given_name' => 'Jo',
        'family_name' => $id,
    ]);
    $now = [
        new Enrollment('e1', 1, [
            'person_id' => 'petra',
            'role' => 'lead',
            'begins_on' => '2026-08-24',
            'ends_on' => null,
        ]),
        new Enrollment('e2', 1, [
            'person_id' => 'marten',
            'role' => 'co_teacher',
            'begins_on' => '2026-08-24',
            'ends_on' => null,
        ]),
    ];
    $plan = Leads::handOver($heron, $staff('marten'), $now, $ids, '2026-10-05');
    expect(
        array_map(
            fn(Change $c): string => $c->inserts() ? "{$c->after['person_id']} {$c->after['role']}" : "$c->id ends",
            $plan->changes,
        ),
    )
        ->toBe(['e1 ends', 'petra co_teacher', 'e2 ends', 'marten lead'])
        ->and(fn() => Leads::handOver($heron, $staff('petra'), $now, $ids, '2026-10-05'))
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => Leads::handOver($heron, $staff('gone', 'left'), $now, $ids, '2026-10-05'))
        ->toThrow(Refusal::class)
        ->and(fn() => Leads::takeOff($heron, $staff('petra'), $now[0], '2026-10-05'))
        ->toThrow(Refusal::class, 'Hand the lead over')
        ->and(Leads::takeOff($heron, $staff('marten'), $now[1], '2026-10-05')->changes[0]->after)
        ->toBe(['ends_on' => '2026-10-05']);
});

it('gives each role its powers', function (): void {
    $may = fn(StaffRole $r): array => array_map(
        fn(Power $p): string => $p->value,
        array_values(array_filter(Power::cases(), fn(Power $p): bool => $r->may($p))),
    );
    expect($may(StaffRole::Lead))
        ->toHaveCount(count(Power::cases()))
        ->and(array_values(array_diff($may(StaffRole::Lead), $may(StaffRole::CoTeacher))))
        ->toBe(['hand_over_lead', 'archive'])
        ->and($may(StaffRole::Assistant))
        ->toBe(['see_roster', 'print_cards'])
        ->and($may(StaffRole::Substitute))
        ->toBe(['see_roster', 'print_cards', 'use_code', 'answer_requests', 'room_pass']);
});

it('keeps a school’s settings sound', function (array $wish, int $below, ?string $field): void {
    $school = new School('s', 1, [
        'name' => 'Lanternfield Primary',
        'lowest_grade' => 0,
        'highest_grade' => 5,
        'mail_domains' => '["lanternfield.example"]',
        'time_zone' => 'UTC',
        'naming_pattern' => '{subject}',
        'sign_in_policy' => '',
        'stay_days_shared' => 0,
        'stay_days_own' => 0,
        'day_opens' => '07:00',
        'day_closes' => '17:00',
    ]);
    $change = fn(): Plan => SchoolSettings::change($school, $wish, ['UTC', 'America/New_York'], $below);
    if ($field === null) {
        expect($change()->changes[0]->after)->toBe($wish);
    } else {
        try {
            $change();
        } catch (Refusal $e) {
            expect($e->field)->toBe($field);

            return;
        }
        expect(false)->toBeTrue('it was taken');
    }
})->with([
    [['time_zone' => 'America/New_York'], 0, null],
    [['time_zone' => 'Lanternfield'], 0, 'time_zone'],
    [['name' => ' '], 0, 'name'],
    [['lowest_grade' => 6], 0, 'highest_grade'],
    [['highest_grade' => 4], 3, 'highest_grade'],
    [['mail_domains' => '["no domain"]'], 0, 'mail_domains'],
    [['naming_pattern' => 'x'], 0, 'naming_pattern'],
    [['sign_in_policy' => '0:2 magic'], 0, 'sign_in_policy'],
    [['stay_days_own' => 91], 0, 'stay_days_own'],
    [['day_opens' => '7:00'], 0, 'day_opens'],
    [['day_opens' => '18:00'], 0, 'day_closes'],
    [['sign_in_policy' => '0:2 card'], 0, null],
]);

it('plans years that do not overlap', function () use ($ids): void {
    $current = new SchoolYear('y', 1, [
        'name' => '2026-27',
        'begins_on' => '2026-08-24',
        'ends_on' => '2027-06-12',
        'state' => 'current',
    ]);
    expect(SchoolYears::plan('s', '2027-28', '2027-08-23', '2028-06-10', [$current], $ids)->changes[0]->after['state'])
        ->toBe('planned')
        ->and(SchoolYears::plan('s', '2026-27', '2026-08-24', '2027-06-12', [], $ids)->changes[0]->after['state'])
        ->toBe('current')
        ->and(fn() => SchoolYears::plan('s', '2027-28', '2027-06-11', '2028-06-10', [$current], $ids))
        ->toThrow(Refusal::class, 'overlaps 2026-27')
        ->and(fn() => SchoolYears::plan('s', '2026-27', '2027-08-23', '2028-06-10', [$current], $ids))
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => SchoolYears::plan('s', 'x', '2027-08-23', '2027-08-23', [$current], $ids))
        ->toThrow(Refusal::class, 'before it begins')
        ->and(
            fn() => SchoolYears::edit(
                new SchoolYear('z', 1, ['name' => '2025-26', 'state' => 'closed']),
                'x',
                '2025-08-01',
                '2026-06-01',
                [],
                $ids,
            ),
        )
        ->toThrow(Refusal::class, 'closed');
    expect(SchoolYears::edit($current, '2026-27', '2026-08-24', '2027-06-18', [$current])->changes[0]->after)
        ->toBe(['ends_on' => '2027-06-18'])
        ->and(SchoolYears::following('2026-08-24', '2027-06-12'))
        ->toBe(['2027-28', '2027-08-24', '2028-06-12'])
        // A school year of the south lies within one year.
        ->and(SchoolYears::following('2027-01-28', '2027-12-17'))
        ->toBe(['2028', '2028-01-28', '2028-12-17'])
        // One year may begin on the day the other ends on, which is not one of its days.
        ->and(
            SchoolYears::plan('s', '2027-28', '2027-06-12', '2028-06-10', [$current], $ids)->countOf(
                Entity::SchoolYear,
            ),
        )
        ->toBe(1);
});

it('sums up how large letters must be for the back row', function (): void {
    // 2 x 8 m x tan(11') = 51.2 mm: eight metres want capitals of five centimetres.
    expect(round(Legibility::capitalHeight(8.0), 1))
        ->toBe(51.2)
        ->and(round(Legibility::distance(Legibility::capitalHeight(8.0)), 6))
        ->toBe(8.0);
    foreach ([8, 9, 11] as $symbols) {
        expect(Legibility::codeReadableFrom($symbols, 1.5))->toBeGreaterThan(8.0);
    }
    expect(Legibility::typeSize(8) * 8 * Legibility::ADVANCE)
        ->toEqualWithDelta(Legibility::FILLED, 1e-9)
        ->and(fn() => Legibility::capitalHeight(0))
        ->toThrow(InvalidArgumentException::class);
});

it('has one lead after any number of hand-overs, and forgets nobody who led', function () use ($heron): void {
    $random = new KeyedStream(str_repeat('k', 32), 'leads');
    $people = array_map(
        fn(string $id): Person => new Person($id, 1, [
            'kind' => 'staff',
            'state' => 'active',
            'given_name' => 'Jo',
            'family_name' => $id,
        ]),
        ['a', 'b', 'c', 'd'],
    );
    for ($round = 0; $round < 25; $round++) {
        $snapshot = new Snapshot();
        $led = [];
        for ($step = 0; $step < 12; $step++) {
            $in = array_values(
                array_filter($snapshot->all(Enrollment::class), fn(Record $e): bool => $e->field('ends_on') === null),
            );
            $person = $people[$random->below(4)];
            try {
                $snapshot = $snapshot->with(
                    Leads::handOver(
                        $heron,
                        $person,
                        $in,
                        new Ids(sprintf('01K3CNQ000%016d', $round * 100 + $step)),
                        '2026-10-05',
                    ),
                );
                $led[$person->id] = true;
            } catch (Refusal $e) {
                expect($e->getMessage())->toContain('already');
            }
            $now = array_filter(
                $snapshot->all(Enrollment::class),
                fn(Record $e): bool => $e->field('ends_on') === null,
            );
            expect(count(array_filter($now, fn(Record $e): bool => $e->field('role') === 'lead')))
                ->toBe(1)
                ->and(array_unique(array_map(fn(Record $e): string => $e->field('person_id'), $now)))
                ->toHaveCount(count($now))
                ->toHaveCount(count($led));
        }
    }
});
