<?php

declare(strict_types=1);

use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;

it('fails on a column that was not read, and on a state it does not know', function (): void {
    $person = new Person('p', 1, [
        'given_name' => 'Noor',
        'state' => 'active',
        'number' => '',
        'grade' => null,
        'kind' => 'ghost',
    ]);
    expect($person->givenName())
        ->toBe('Noor')
        ->and($person->state())
        ->toBe(PersonState::Active)
        ->and($person->number())
        ->toBeNull()
        ->and($person->grade())
        ->toBeNull()
        ->and($person->field('given_name'))
        ->toBe('Noor')
        ->and(fn() => $person->familyName())
        ->toThrow(LogicException::class, 'people.family_name was not read.')
        ->and(fn() => $person->field('email'))
        ->toThrow(LogicException::class, 'people.email was not read.')
        ->and(fn() => $person->kind())
        ->toThrow(ValueError::class);
});

it('reads each kind of record as what it says it is', function (Entity $entity): void {
    $kind = $entity->record();
    expect($kind::entity())->toBe($entity);
})->with(Entity::cases());

it('counts numbers, and keeps an absent one absent', function (): void {
    $section = new Section('s', 1, ['seats' => 24, 'period' => null, 'school_year_id' => 'y']);
    expect($section->seats())
        ->toBe(24)
        ->and($section->with(['seats' => null])->seats())
        ->toBeNull()
        ->and($section->with([])->version)
        ->toBe(2)
        ->and($section->period())
        ->toBeNull();
});

it('holds until the day before it ends', function (?string $ends, string $day, bool $lasts): void {
    $enrollment = new Enrollment('e', 1, ['role' => 'co_teacher', 'ends_on' => $ends]);
    expect($enrollment->lastsBeyond($day))->toBe($lasts)->and($enrollment->role())->toBe(EnrollmentRole::CoTeacher);
})->with([
    [null, '2026-10-01', true],
    ['2026-10-02', '2026-10-01', true],
    ['2026-10-01', '2026-10-01', false],
    ['2026-09-01', '2026-10-01', false],
]);

it('tells who is a teacher to students, and who only stands in for one', function (): void {
    expect(EnrollmentRole::values(fn(EnrollmentRole $r): bool => $r->isTeacher()))
        ->toBe(['lead', 'co_teacher', 'substitute'])
        ->and(EnrollmentRole::values(fn(EnrollmentRole $r): bool => $r->standsIn()))
        ->toBe(['substitute'])
        ->and(EnrollmentRole::Student->isTeacher())
        ->toBeFalse();
});
