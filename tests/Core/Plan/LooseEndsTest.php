<?php

declare(strict_types=1);

use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Standing;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SignIn;

it('says what is closed', function (): void {
    $closed = [];
    foreach (Entity::cases() as $entity) {
        foreach (['merged', 'archived', 'closed', 'open', 'active', null] as $state) {
            if (LooseEnds::isClosed($entity, ['state' => $state])) {
                $closed[] = "$entity->value $state";
            }
        }
        expect(LooseEnds::isClosed($entity, []))->toBeFalse();
    }
    expect($closed)->toBe(['school_years closed', 'people merged', 'sections archived']);
});

it('says which columns may not point at something closed', function (Entity $entity, array $values, array $ties): void {
    $columns = ['merged_into', 'person_id', 'student_id', 'guardian_id', 'school_year_id', 'section_id', 'school_id'];
    expect(array_values(array_filter($columns, fn(string $c): bool => LooseEnds::ties($entity, $c, $values))))->toBe(
        $ties,
    );
})->with([
    'somebody' => [Entity::Person, [], ['merged_into']],
    'a user name' => [Entity::SignIn, [], ['person_id']],
    'a school sign-on' => [Entity::Identity, [], ['person_id']],
    'a guardian' => [Entity::Guardianship, [], ['student_id', 'guardian_id']],
    'an enrollment without an end' => [
        Entity::Enrollment,
        ['begins_on' => '2026-08-24', 'ends_on' => null],
        ['person_id'],
    ],
    'one of a day' => [Entity::Enrollment, ['begins_on' => '2026-08-24', 'ends_on' => '2026-08-25'], ['person_id']],
    'one of no day' => [Entity::Enrollment, ['begins_on' => '2026-08-24', 'ends_on' => '2026-08-24'], []],
    'one whose beginning is not known' => [Entity::Enrollment, ['ends_on' => '2026-08-24'], ['person_id']],
    'an open section' => [Entity::Section, ['state' => 'open'], ['school_year_id']],
    'an archived one' => [Entity::Section, ['state' => 'archived'], []],
    'an open code' => [Entity::JoinCode, ['state' => 'open'], ['section_id']],
    'a closed one' => [Entity::JoinCode, ['state' => 'closed'], []],
    'an open invitation' => [Entity::Invitation, ['state' => 'invited'], ['section_id']],
    'an answered one' => [Entity::Invitation, ['state' => 'accepted'], []],
    'a request that waits' => [Entity::JoinRequest, ['state' => 'waiting'], ['section_id']],
    'one that waits for its mail' => [Entity::JoinRequest, ['state' => 'mail'], ['section_id']],
    'a room pass' => [Entity::RoomPass, ['state' => 'live'], ['section_id']],
    'one without a state' => [Entity::RoomPass, [], []],
    'a school' => [Entity::School, ['state' => 'open'], []],
]);

/**
 * Records that stand, and nothing else that a standing is asked.
 *
 * @param  list<Record>  $records
 */
function recordsThatStand(array $records): Standing
{
    $standing = Mockery::mock(Standing::class);
    $standing
        ->shouldReceive('rows')
        ->andReturnUsing(
            fn(string $kind, string $column, array $values): array => array_filter(
                $records,
                fn(Record $r): bool => $r instanceof $kind && in_array($r->values[$column] ?? null, $values, true),
            ),
        );

    return $standing;
}

/** @param  array<string, string>  $merges account that goes to the one that stays */
function planThatMerges(array $merges, array $moves = []): Plan
{
    $plan = new PlanBuilder();
    foreach ($merges as $from => $into) {
        $plan->update(
            new Person($from, 1, ['state' => 'active', 'merged_into' => null]),
            ['state' => 'merged', 'merged_into' => $into],
            'merged',
        );
    }
    foreach ($moves as [$record, $values]) {
        $plan->update($record, $values, 'moved');
    }

    return $plan->build('Merge', 'Merges.');
}

$listed = fn(string $id, string $student, string $guardian): Guardianship => new Guardianship($id, 1, [
    'student_id' => $student,
    'guardian_id' => $guardian,
]);

it('names what a merge would leave tied to the account that goes', function () use ($listed): void {
    $kai = new SignIn('s1', 1, ['person_id' => 'old']);
    $noor = new SignIn('s2', 1, ['person_id' => 'old']);
    $now = recordsThatStand([$kai, $noor, $listed('g1', 'old', 'mother')]);
    expect(LooseEnds::of(planThatMerges(['old' => 'new']), $now))
        ->toBe(['sign_ins s1', 'sign_ins s2', 'guardianships g1'])
        ->and(LooseEnds::of(planThatMerges(['old' => 'new'], [[$kai, ['person_id' => 'new']]]), $now))
        ->toBe(['sign_ins s2', 'guardianships g1'])
        ->and(LooseEnds::of(planThatMerges(['other' => 'new']), $now))
        ->toBe([]);
    // One that is made merged ends nothing, and what moves to the account that goes is tied to it.
    $made = new PlanBuilder();
    $made->insert(Entity::Person, 'old', ['state' => 'merged', 'merged_into' => 'new'], 'made');
    expect(LooseEnds::of($made->build('Made', 'Made.'), $now))->toBe([]);
});

it('lets a guardian stay listed with the account that goes where the one that stays has the same', function (
    array $standing,
    array $merges,
    array $loose,
) use ($listed): void {
    $now = recordsThatStand(array_map(fn(array $g): Guardianship => $listed(...$g), $standing));
    expect(LooseEnds::of(planThatMerges($merges), $now))->toBe($loose);
})->with([
    'both have the mother' => [[['g1', 'old', 'mother'], ['g2', 'new', 'mother']], ['old' => 'new'], []],
    'one has the mother, one the father' => [
        [['g1', 'old', 'mother'], ['g2', 'new', 'father']],
        ['old' => 'new'],
        ['guardianships g1'],
    ],
    'two go, and only one of them has the same' => [
        [['g1', 'old', 'mother'], ['g2', 'older', 'father'], ['g3', 'new', 'mother']],
        ['old' => 'new', 'older' => 'new'],
        ['guardianships g2'],
    ],
    'the mother has two accounts, and the child both' => [
        [['g1', 'child', 'mother 2'], ['g2', 'child', 'mother']],
        ['mother 2' => 'mother'],
        [],
    ],
    'the mother has two accounts, each with a child of its own' => [
        [['g1', 'child', 'mother 2'], ['g2', 'brother', 'mother']],
        ['mother 2' => 'mother'],
        ['guardianships g1'],
    ],
    'child and mother go in one plan' => [
        [['g1', 'old', 'mother 2'], ['g2', 'new', 'mother']],
        ['old' => 'new', 'mother 2' => 'mother'],
        [],
    ],
]);
