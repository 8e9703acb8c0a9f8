<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Relied;
use Vantrel\Core\Records\Entity;

/** @param  list<Change>  $changes */
function planOf(array $changes): Plan
{
    return new Plan('p', 'p.', $changes);
}

it('reads off a plan which people and sections it ties something to, but for those it makes', function (): void {
    $plan = planOf([
        new Change(Entity::Person, 'new', null, [], ['school_id' => 's', 'merged_into' => null], 'made'),
        new Change(
            Entity::Enrollment,
            'e1',
            null,
            [],
            ['section_id' => 'b', 'person_id' => 'new', 'join_code_id' => 'j'],
            'enrolled',
        ),
        new Change(
            Entity::Enrollment,
            'e2',
            null,
            [],
            ['section_id' => 'a', 'person_id' => 'known', 'join_code_id' => null],
            'enrolled',
        ),
        new Change(Entity::Person, 'gone', 4, ['merged_into' => null], ['merged_into' => 'stays'], 'merged'),
    ]);
    expect(Relied::on($plan))->toBe([
        'people' => ['known' => false, 'stays' => false],
        'sections' => ['a' => true, 'b' => true],
    ]);
});

it('asks for an open section only where something new comes into it', function (): void {
    expect(
        Relied::on(
            planOf([new Change(Entity::Enrollment, 'e', 3, ['ends_on' => null], ['ends_on' => '2026-09-01'], 'left')]),
        ),
    )
        ->toBe([])
        ->and(
            Relied::on(
                planOf([
                    new Change(
                        Entity::Section,
                        's',
                        null,
                        [],
                        ['school_id' => 'x', 'carried_from' => 'old'],
                        'carried',
                    ),
                ]),
            ),
        )
        ->toBe(['sections' => ['old' => false]])
        ->and(
            Relied::on(
                planOf([new Change(Entity::Enrollment, 'e', 3, ['section_id' => 'a'], ['section_id' => 'b'], 'moved')]),
            ),
        )
        ->toBe(['sections' => ['b' => true]]);
});

it('says why something cannot be tied to a row as it is now', function (
    Entity $entity,
    ?string $state,
    bool $opens,
    ?string $fault,
): void {
    expect(Relied::fault($entity, $state, $opens))->toBe($fault);
})->with([
    [Entity::Person, 'active', false, null],
    [Entity::Person, 'left', false, null],
    [Entity::Person, 'reserve', false, null],
    [Entity::Person, 'merged', false, 'has been merged into another account'],
    [Entity::Person, null, false, 'is gone'],
    [Entity::Section, 'open', true, null],
    [Entity::Section, 'archived', true, 'has been archived'],
    [Entity::Section, 'archived', false, null],
    [Entity::Section, null, false, 'is gone'],
]);

it('names for each record what it cannot be without only where it points at it', function (): void {
    foreach (Entity::cases() as $entity) {
        expect(
            array_diff_assoc(
                array_map(fn(Entity $e): string => $e->value, $entity->neededBy()),
                array_map(fn(Entity $e): string => $e->value, $entity->references()),
            ),
        )->toBe([]);
    }
});
