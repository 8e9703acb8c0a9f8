<?php

declare(strict_types=1);

use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

// A child who has an account at each of two schools becomes one child at one of them.

/**
 * @param  list<Person>  $people
 * @param  list<Enrollment>  $enrollments
 * @param  list<Guardianship>  $links
 */
function atSchools(array $people, array $enrollments, array $links = []): Snapshot
{
    $snapshot = accounts($people, $enrollments, [], $links);
    $sections = [];
    foreach (['five' => 'old', 'choir' => 'old', 'six' => 'new', 'club' => 'third'] as $id => $school) {
        $sections[$id] = new Section($id, 1, ['school_id' => $school, 'name' => $id]);
    }

    return new Snapshot(
        [
            'people' => $snapshot->all(Person::class),
            'enrollments' => $snapshot->all(Enrollment::class),
            'guardianships' => $snapshot->all(Guardianship::class),
            'sections' => $sections,
        ],
        ['old' => 'Lanternfield', 'new' => 'Copperbrook', 'third' => 'Highmoor'],
    );
}

it(
    'is at the school they came into last, with its number and grade; what they were in elsewhere ends',
    function (): void {
        $snapshot = atSchools(
            [
                account('a', ['school_id' => 'old', 'number' => '7', 'grade' => '05']),
                account('b', ['school_id' => 'new', 'number' => null, 'grade' => '06']),
                account('ann', ['school_id' => 'old', 'kind' => 'guardian']),
                account('bea', ['school_id' => 'old', 'kind' => 'guardian']),
                account('sib', ['school_id' => 'old']),
            ],
            [
                enrolled('e1', 'a', 'five', '2026-08-24', null),
                // At a third school too: that is nobody's to end.
                enrolled('e2', 'a', 'club', '2026-08-24', null),
                enrolled('e3', 'b', 'six', '2026-11-02', null),
                // Both were in the choir: the other account's span is covered, and stays so.
                enrolled('e4', 'a', 'choir', '2026-08-24', null),
                enrolled('e5', 'b', 'choir', '2026-09-01', null),
            ],
            [
                guardianOf('g1', 'a', 'ann')->with(['state' => 'listed']),
                guardianOf('g2', 'a', 'bea')->with(['state' => 'listed']),
                guardianOf('g3', 'sib', 'bea')->with(['state' => 'listed']),
            ],
        );
        $planned = MergePlanner::plan($snapshot, ['a', 'b'], [], ['old', 'new'], '2026-11-26');
        $after = $snapshot->with($planned->plan);
        $fields = array_column($planned->result->fields, null, 'column');
        $ends = fn(string $id): ?string => $after->find(Enrollment::class, $id)?->endsOn();
        $child = $after->find(Person::class, 'a');
        expect($planned->result->staysId)
            ->toBe('a')
            ->and([$fields['school_id']->stays, $fields['school_id']->why])
            ->toBe(['Copperbrook', 'came into a section there last'])
            // A number is given by a school: the new one has given none yet.
            ->and([$child?->schoolId(), $child?->number(), $child?->grade()])
            ->toBe(['new', null, '06'])
            ->and(array_map($ends, ['e1', 'e2', 'e3', 'e4', 'e5']))
            ->toBe(['2026-11-26', null, null, '2026-11-26', '2026-09-01'])
            ->and($planned->plan->sentence)
            ->toContain('The person is at Copperbrook. What they were in elsewhere ends today: five and choir.')
            // Ann has no other child there; Bea has.
            ->and($after->find(Person::class, 'ann')?->schoolId())
            ->toBe('new')
            ->and($after->find(Person::class, 'bea')?->schoolId())
            ->toBe('old')
            ->and($after->without($planned->plan)->records(Entity::Person))
            ->toEqual($snapshot->records(Entity::Person));
    },
);

it('is where somebody says, with the number somebody says', function (): void {
    $snapshot = atSchools(
        [account('a', ['school_id' => 'old', 'number' => '7']), account('b', ['school_id' => 'new', 'number' => '9'])],
        [enrolled('e1', 'a', 'five', '2026-08-24', null), enrolled('e3', 'b', 'six', '2026-11-02', null)],
    );
    $number = fn(array $picks): ?string => $snapshot
        ->with(MergePlanner::plan($snapshot, ['a', 'b'], $picks, [], '2026-11-26')->plan)
        ->find(Person::class, 'a')
        ?->number();
    expect($number([]))
        ->toBe('9')
        ->and($number(['school_id' => 'a']))
        ->toBe('7')
        ->and($number(['number' => 'a']))
        ->toBe('7');
});

it('says why that school', function (array $a, array $b, string $why): void {
    $snapshot = atSchools(
        [account('a', ['school_id' => 'old', ...$a]), account('b', ['school_id' => 'new', ...$b])],
        [],
    );
    $fields = array_column(
        MergePlanner::plan($snapshot, ['a', 'b'], [], [], '2026-11-26')->result->fields,
        null,
        'column',
    );
    expect($fields['school_id']->why)->toBe($why);
})->with([[['state' => 'active'], ['state' => 'left'], 'still there'], [[], [], 'of the account made last']]);

it('does not ask which school where there is but one', function (): void {
    $planned = MergePlanner::plan(accounts([account('a'), account('b')]), ['a', 'b']);
    expect(array_column($planned->result->fields, 'column'))
        ->not->toContain('school_id')
        ->and($planned->plan->sentence)
        ->not->toContain('The person is at');
});
