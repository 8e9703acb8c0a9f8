<?php

declare(strict_types=1);

use Tests\Support\PlanText;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

/**
 * A school of grades K to 2 with a student in each, one without a grade, and two sections, one of them without a lead.
 */
function oneSchool(): Snapshot
{
    $student = fn(string $id, ?string $grade, string $state = 'active'): Person => new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'student',
        'given_name' => ucfirst($id),
        'family_name' => 'Pupil',
        'grade' => $grade,
        'number' => null,
        'state' => $state,
    ]);
    $section = fn(string $id, string $name): Section => new Section($id, 1, [
        'school_id' => 'school',
        'school_year_id' => 'year',
        'name' => $name,
        'kind' => 'homeroom',
        'grade' => '01',
        'period' => null,
        'seats' => null,
        'state' => 'open',
        'archived_on' => null,
        'carried_from' => null,
    ]);

    return new Snapshot([
        'school_years' => [
            'year' => new SchoolYear('year', 1, [
                'school_id' => 'school',
                'name' => '2026-27',
                'begins_on' => '2026-08-24',
                'ends_on' => '2027-06-12',
                'state' => 'current',
            ]),
        ],
        'people' => [
            'kim' => $student('kim', 'KG'),
            'one' => $student('one', '01'),
            'two' => $student('two', '02'),
            'none' => $student('none', null),
            'gone' => $student('gone', '01', 'left'),
        ],
        'sections' => ['led' => $section('led', '1 Heron'), 'bare' => $section('bare', '1 Tern')],
        'enrollments' => [
            'lead' => new Enrollment('lead', 1, [
                'section_id' => 'led',
                'person_id' => 't',
                'role' => 'lead',
                'begins_on' => '2026-08-24',
                'ends_on' => null,
                'source' => 'hand',
            ]),
            'former' => new Enrollment('former', 1, [
                'section_id' => 'led',
                'person_id' => 'u',
                'role' => 'assistant',
                'begins_on' => '2026-08-24',
                'ends_on' => '2026-10-01',
                'source' => 'hand',
            ]),
            'stand-in' => new Enrollment('stand-in', 1, [
                'section_id' => 'led',
                'person_id' => 'v',
                'role' => 'substitute',
                'begins_on' => '2027-05-01',
                'ends_on' => null,
                'source' => 'hand',
            ]),
        ],
        'join_codes' => [
            'code' => new JoinCode('code', 1, [
                'section_id' => 'led',
                'code' => 'KDM4X7R',
                'state' => 'open',
                'closed_at' => null,
            ]),
        ],
        'invitations' => [
            'asked' => new Invitation('asked', 1, ['section_id' => 'led', 'state' => 'invited', 'answered_at' => null]),
        ],
    ]);
}

/** @param  array<string, mixed>  $with */
function turning(array $with = [], ?Snapshot $snapshot = null): Plan
{
    $wish = new YearTurnWish(
        ...[
            ...[
                'schoolId' => 'school',
                'fromYearId' => 'year',
                'nextName' => '2027-28',
                'nextBegins' => '2027-08-23',
                'nextEnds' => '2028-06-10',
                'grades' => [0, 1, 2],
                'heldBack' => [],
                'carrySections' => true,
                'today' => '2027-06-20',
                'now' => '2027-06-20 00:00:00',
            ],
            ...$with,
        ],
    );

    return YearTurnPlanner::plan(
        $snapshot ?? oneSchool(),
        $wish,
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), ['KDM4X7R' => true], 1, 100),
        new Ids('01K3CNQ0000000000000000000'),
    );
}

/** @return array<string, array<string, mixed>> id to what changes, of updated records */
function updatesIn(Plan $plan, Entity $entity): array
{
    $found = [];
    foreach ($plan->changes as $change) {
        if ($change->entity === $entity && !$change->inserts()) {
            $found[$change->id] = $change->after;
        }
    }

    return $found;
}

it('moves everyone up a grade, the top grade out, and nobody else', function (): void {
    $plan = turning();
    expect(updatesIn($plan, Entity::Person))
        ->toBe(['kim' => ['grade' => '01'], 'one' => ['grade' => '02'], 'two' => ['state' => 'left']])
        ->and($plan->sentence)
        ->toBe(
            'Archives 2 sections, moves 2 students up a grade, lets 1 leave and carries 2 sections into ' .
                '2027-28 under new codes. Rosters, accounts and cards stay.',
        );
    $why = array_map(
        fn(PlanRow $r): string => $r->why,
        array_filter($plan->rows, fn(PlanRow $r): bool => $r->cells['Name']->after === 'None Pupil'),
    );
    expect(array_values($why))->toBe(['has no grade']);
});

it('holds back whom it is told to, even in the top grade', function (): void {
    expect(updatesIn(turning(['heldBack' => ['one', 'two']]), Entity::Person))->toBe(['kim' => ['grade' => '01']]);
});

it('closes codes and invitations and archives sections, leaving enrollments as they are', function (): void {
    $plan = turning();
    expect(updatesIn($plan, Entity::Section))
        ->toBe([
            'led' => ['state' => 'archived', 'archived_on' => '2027-06-20'],
            'bare' => ['state' => 'archived', 'archived_on' => '2027-06-20'],
        ])
        ->and(updatesIn($plan, Entity::JoinCode)['code']['state'])
        ->toBe('closed')
        ->and(updatesIn($plan, Entity::Invitation)['asked']['state'])
        ->toBe('withdrawn')
        ->and(updatesIn($plan, Entity::Enrollment))
        ->toBe([])
        ->and(updatesIn($plan, Entity::SchoolYear))
        ->toBe(['year' => ['state' => 'closed']]);
});

it('carries sections with those who teach them now, under codes that were never used', function (): void {
    $inserted = fn(Plan $plan, Entity $entity): array => array_values(
        array_filter($plan->changes, fn(Change $c): bool => $c->entity === $entity && $c->inserts()),
    );
    $plan = turning();
    expect(array_map(fn(Change $c): mixed => $c->after['carried_from'], $inserted($plan, Entity::Section)))
        ->toBe(['led', 'bare'])
        ->and(array_map(fn(Change $c): mixed => $c->after['person_id'], $inserted($plan, Entity::Enrollment)))
        ->toBe(['t'])
        ->and($inserted($plan, Entity::JoinCode))
        ->toHaveCount(2)
        ->and($inserted($plan, Entity::SchoolYear)[0]->after['state'])
        ->toBe('current');
    $bare = turning(['carrySections' => false]);
    expect($inserted($bare, Entity::Section))->toBe([])->and($inserted($bare, Entity::JoinCode))->toBe([]);
});

it('uses the next year where it has been planned already', function (): void {
    $snapshot = oneSchool();
    $years = [
        ...$snapshot->all(SchoolYear::class),
        'next' => new SchoolYear('next', 1, [
            'school_id' => 'school',
            'name' => '2027-28',
            'begins_on' => '2027-08-23',
            'ends_on' => '2028-06-10',
            'state' => 'planned',
        ]),
    ];
    $plan = turning([], new Snapshot(['school_years' => $years, 'people' => $snapshot->all(Person::class)]));
    expect(updatesIn($plan, Entity::SchoolYear))->toBe([
        'year' => ['state' => 'closed'],
        'next' => ['state' => 'current'],
    ]);
    // Dates that were said at the turn count.
    $later = turning(
        ['nextBegins' => '2027-08-30'],
        new Snapshot(['school_years' => $years, 'people' => $snapshot->all(Person::class)]),
    );
    expect(updatesIn($later, Entity::SchoolYear)['next'])->toBe(['state' => 'current', 'begins_on' => '2027-08-30']);
});

it('says what is amiss, and what blocks it', function (): void {
    expect(turning()->warnings)
        ->toBe(['1 Tern has no lead teacher.'])
        ->and(turning()->blockers)
        ->toBe([])
        ->and(turning(['importsBeingApplied' => 1])->blockers[0])
        ->toContain('being applied')
        ->and(turning(['nextBegins' => '2025-08-23'])->blockers[0])
        ->toContain('before 2026-27 did')
        ->and(turning(['fromYearId' => 'nowhere'])->blockers[0])
        ->toContain('already');
});

/** The same school with more in it: a class with a period, a request and a pass at the door, the next year begun. */
function fullSchool(): Snapshot
{
    $school = oneSchool();
    $next = new SchoolYear('next', 4, [
        'school_id' => 'school',
        'name' => '2027-28',
        'begins_on' => '2027-08-20',
        'ends_on' => '2028-06-01',
        'state' => 'planned',
    ]);
    $section = fn(string $id, array $more): Section => new Section($id, 3, [
        'school_id' => 'school',
        'school_year_id' => 'year',
        'name' => '',
        'kind' => 'class',
        'grade' => null,
        'period' => '4',
        'seats' => 20,
        'state' => 'open',
        'archived_on' => null,
        'carried_from' => null,
        ...$more,
    ]);
    $teacher = fn(string $id, string $section, string $role): Enrollment => new Enrollment($id, 1, [
        'section_id' => $section,
        'person_id' => "teacher of $id",
        'role' => $role,
        'begins_on' => '2026-08-24',
        'ends_on' => null,
        'source' => 'list',
    ]);

    return new Snapshot([
        'school_years' => [...$school->all(SchoolYear::class), 'next' => $next],
        'people' => [
            ...$school->all(Person::class),
            'ada' => new Person('ada', 2, [
                'school_id' => 'school',
                'kind' => 'student',
                'given_name' => 'Ada',
                'family_name' => 'Abel',
                'grade' => '01',
                'number' => '040001',
                'state' => 'active',
            ]),
            'elsewhere' => new Person('elsewhere', 2, ['school_id' => 'other', 'kind' => 'student', 'grade' => '01']),
            'teacher' => new Person('teacher', 2, ['school_id' => 'school', 'kind' => 'staff', 'grade' => null]),
        ],
        'sections' => [
            'art' => $section('art', ['name' => 'Art 10']),
            'art2' => $section('art2', ['name' => 'Art 9']),
            'there' => $section('there', ['name' => 'ART 9', 'school_year_id' => 'next']),
            'shut' => $section('shut', ['name' => 'Music', 'state' => 'archived']),
            'foreign' => $section('foreign', ['name' => 'Choir', 'school_id' => 'other']),
        ],
        'enrollments' => [
            'a' => $teacher('a', 'art', 'lead'),
            'b' => $teacher('b', 'art', 'co_teacher'),
            'c' => $teacher('c', 'art2', 'assistant'),
            'd' => $teacher('d', 'art', 'student'),
        ],
        'join_requests' => [
            'r' => new JoinRequest('r', 1, ['section_id' => 'art', 'state' => 'waiting', 'answered_at' => null]),
        ],
        'room_passes' => [
            'p' => new RoomPass('p', 1, ['section_id' => 'art', 'state' => 'live', 'ended_at' => null]),
        ],
    ]);
}

it('turns a school as a whole: every row, record and word of it', function (): void {
    PlanText::mustBe(turning(['heldBack' => ['two']], fullSchool()), __DIR__, 'whole-school');
});

it('turns a school without carrying anything forward', function (): void {
    PlanText::mustBe(turning(['carrySections' => false, 'grades' => []]), __DIR__, 'nothing-carried');
});

it('begins a year on the very day the one before did, and turns nothing twice', function (): void {
    expect(turning(['nextBegins' => '2026-08-24'])->blockers)->toBe([]);
    $early = turning(['nextBegins' => '2026-08-23', 'importsBeingApplied' => 2, 'grades' => [9]]);
    PlanText::mustBe($early, __DIR__, 'too-early');
    PlanText::mustBe(turning(['fromYearId' => 'nowhere']), __DIR__, 'nothing-to-turn');
});

it('refuses a year that ends before it begins, or on the day', function (string $ends): void {
    expect(fn() => turning(['nextEnds' => $ends]))->toThrow(Refusal::class, 'The year ends before it begins.');
})->with(['2027-08-01', '2027-08-24']);
