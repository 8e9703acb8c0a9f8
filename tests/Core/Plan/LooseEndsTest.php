<?php

declare(strict_types=1);

use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Records\Entity;

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
