<?php

declare(strict_types=1);

use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\Reach;
use Vantrel\Core\Staffing\StaffRole;

it('lets coordinators into every section, others as far as their role goes', function (
    bool $coordinates,
    ?StaffRole $role,
    SectionState $state,
    Power $power,
    bool $in,
): void {
    expect(Reach::intoSection($coordinates, $role, $state, $power))->toBe($in);
})->with([
    'a coordinator without a role' => [true, null, SectionState::Open, Power::Archive, true],
    'a coordinator, archived' => [true, null, SectionState::Archived, Power::EditSection, true],
    'nobody' => [false, null, SectionState::Open, Power::SeeRoster, false],
    'a lead' => [false, StaffRole::Lead, SectionState::Open, Power::Archive, true],
    'a lead, archived' => [false, StaffRole::Lead, SectionState::Archived, Power::Archive, false],
    'a lead looks back' => [false, StaffRole::Lead, SectionState::Archived, Power::SeeRoster, true],
    'an assistant' => [false, StaffRole::Assistant, SectionState::Open, Power::PlaceStudents, false],
]);

it('shows the sections of a school to its staff, and to those who teach at it', function (): void {
    expect(Reach::listsSections(true, 'other', 'school', false))
        ->toBeTrue()
        ->and(Reach::listsSections(false, 'school', 'school', false))
        ->toBeTrue()
        ->and(Reach::listsSections(false, null, 'school', true))
        ->toBeTrue()
        ->and(Reach::listsSections(false, 'other', 'school', false))
        ->toBeFalse()
        ->and(Reach::findsColleagues())
        ->toBe([StaffRole::Lead, StaffRole::CoTeacher]);
});

it('gives a section to who works at its school or teaches it, and to nobody else', function (): void {
    $person = fn(string $school, string $kind = 'staff', string $state = 'active'): Person => new Person('p', 1, [
        'school_id' => $school,
        'kind' => $kind,
        'state' => $state,
    ]);
    expect(Reach::isStaffOf($person('school'), 'school', []))
        ->toBeTrue()
        ->and(Reach::isStaffOf($person('other'), 'school', ['p']))
        ->toBeTrue()
        ->and(Reach::isStaffOf($person('other'), 'school', ['q']))
        ->toBeFalse()
        ->and(Reach::isStaffOf($person('school', 'guardian'), 'school', ['p']))
        ->toBeFalse()
        ->and(Reach::isStaffOf($person('school', 'staff', 'left'), 'school', ['p']))
        ->toBeFalse();
});
