<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;

/**
 * A school with two sections; Petra leads one of them, two of its staff are called Falk, and Bo works at another
 * school.
 */
function staffRoom(): Snapshot
{
    $staff = fn(string $id, string $given, string $family, array $more = []): Person => new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'staff',
        'given_name' => $given,
        'family_name' => $family,
        'search_name' => strtolower("$given $family"),
        'birth_date' => null,
        'number' => null,
        'grade' => null,
        'email' => strtolower("$given.$family@lanternfield.example"),
        'phone' => null,
        'language' => null,
        'preferred_name' => null,
        'state' => 'active',
        'merged_into' => null,
        ...$more,
    ]);
    $section = fn(string $id, string $name): Section => new Section($id, 1, [
        'school_id' => 'school',
        'school_year_id' => 'year',
        'name' => $name,
        'kind' => 'class',
        'grade' => '03',
        'state' => 'open',
        'archived_on' => null,
        'carried_from' => null,
    ]);

    return new Snapshot(
        [
            'people' => [
                'petra' => $staff('petra', 'Petra', 'Okonjo'),
                'jorun' => $staff('jorun', 'Jorun', 'Falk'),
                'anna' => $staff('anna', 'Anna', 'Falk'),
                'bo' => $staff('bo', 'Bo', 'Rao', ['school_id' => 'other']),
            ],
            'sections' => ['heron' => $section('heron', '3 Heron'), 'art' => $section('art', 'Art 3')],
            'enrollments' => [
                'lead' => new Enrollment('lead', 1, [
                    'section_id' => 'heron',
                    'person_id' => 'petra',
                    'role' => 'lead',
                    'begins_on' => '2026-08-24',
                    'ends_on' => null,
                    'source' => 'hand',
                ]),
            ],
        ],
        ['school' => 'Here', 'other' => 'Elsewhere'],
    );
}

function staffPlan(string $csv, array $taken = []): Plan
{
    return IntakePlanner::plan(
        Lists::contents($csv),
        staffRoom(),
        new IntakeWish('List', 'school', 'year', '2026-10-01', []),
        new Ids('01K3CNQ0000000000000000000'),
        new UserNames(array_fill_keys($taken, true), []),
    );
}

/** @return list<string> `role person in section` of those the plan makes teach */
function teaching(Plan $plan): array
{
    $who = [];
    foreach ($plan->changes as $change) {
        if ($change->entity === Entity::Person && $change->inserts()) {
            $who[$change->id] = (string) $change->after['given_name'];
        }
    }

    return array_values(
        array_map(
            fn(Change $c): string => "{$c->after['role']} " .
                ($who[$c->after['person_id']] ?? $c->after['person_id']) .
                " in {$c->after['section_id']}",
            array_filter($plan->changes, fn(Change $c): bool => $c->entity === Entity::Enrollment && $c->inserts()),
        ),
    );
}

/** @return list<string> */
function problemsOf(PlanRow $row): array
{
    return array_map(fn(Problem $p): string => $p->message, $row->problems);
}

it('finds a section’s teacher by address, by name, and by family name with a title', function (
    string $teacher,
    string $email,
    array $teaching,
    ?string $problem,
): void {
    $plan = staffPlan("Section,Grade,Teacher,Teacher email\nArt 3,3,$teacher,$email\nMusic 3,3,,\n");
    expect(teaching($plan))->toBe($teaching);
    $said = problemsOf($plan->rows[0]);
    $problem === null ? expect($said)->toBe([]) : expect($said[0])->toContain($problem);
})->with([
    'by address' => ['', 'petra.okonjo@lanternfield.example', ['lead petra in art'], null],
    'by name' => ['Petra Okonjo', '', ['lead petra in art'], null],
    'by title and family name' => ['Ms. Okonjo', '', ['lead petra in art'], null],
    'two of that family name' => ['Ms. Falk', '', [], 'More than one member of staff is called'],
    'nobody of that name' => ['Mr. Nowhere', '', [], 'Nobody on the staff is called'],
    'nobody of that address, and no name' => [
        '',
        'new@lanternfield.example',
        [],
        'No member of staff has the address new@lanternfield.example',
    ],
    'somebody new with name and address' => ['Nia New', 'nia@lanternfield.example', ['lead Nia in art'], null],
    'somebody of another school, by address' => ['Bo Rao', 'bo.rao@lanternfield.example', ['lead bo in art'], null],
]);

it('makes whoever comes second a co-teacher, and says nothing new of who teaches already', function (): void {
    expect(teaching(staffPlan("Section,Teacher\n3 Heron,Jorun Falk\n")))
        ->toBe(['co_teacher jorun in heron'])
        ->and(staffPlan("Section,Teacher\n3 Heron,Petra Okonjo\n")->isEmpty())
        ->toBeTrue();
});

it('knows staff by their address alone, and stops where it is not clear whose it is', function (
    string $rows,
    array $taken,
    string $problem,
): void {
    $plan = staffPlan("Staff name,Email,Role,Classes\n$rows", $taken);
    expect(implode(' ', array_merge(...array_map(problemsOf(...), $plan->rows))))->toContain($problem);
})->with([
    'one address, two people' => [
        "Nia New,nia@lanternfield.example,Teacher,\nOle Other,nia@lanternfield.example,Teacher,\n",
        [],
        'Two people of this list have the address nia@lanternfield.example',
    ],
    'an address that somebody else signs in with' => [
        "Nia New,nia@lanternfield.example,Teacher,\n",
        ['nia@lanternfield.example'],
        'Someone who is not on the staff signs in with nia@lanternfield.example already',
    ],
    'no address' => ["Nia New,,Teacher,\n", [], 'Staff sign in with their e-mail address, and there is none'],
]);

it('adds a phone that is not known; a plain phone is not taken for a guardian’s', function (): void {
    $plan = staffPlan(
        "Staff name,Email,Phone,Classes\nPetra Okonjo,petra.okonjo@lanternfield.example,(202) 555-0143,Art 3\n",
    );
    $changes = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->entity === Entity::Person));
    expect($changes)
        ->toHaveCount(1)
        ->and($changes[0]->after)
        ->toBe(['phone' => '+12025550143'])
        ->and(teaching($plan))
        ->toBe(['lead petra in art']);
});

it('tells a list of staff by what the names are called, or by roles', function (
    string $header,
    ListKind $kind,
    ?Field $phone,
): void {
    $layout = Lists::layout("$header\nPetra Okonjo,petra.okonjo@lanternfield.example,x,(202) 555-0143\n");
    $field = array_values(
        array_filter($layout->columns, fn(Column $c): bool => str_contains(strtolower($c->heading), 'phone')),
    )[0]->field;
    expect($layout->kind)->toBe($kind)->and($field)->toBe($phone);
})->with([
    ['Staff name,Email,Room,Phone', ListKind::Staff, Field::Phone],
    ['Employee,Email,Room,Mobile phone', ListKind::Staff, Field::Phone],
    ['Name,Email,Role,Phone', ListKind::Staff, Field::Phone],
    ['Name,Email,Grade,Phone', ListKind::Students, Field::GuardianPhone],
    ['Name,Parent email,Role,Parent phone', ListKind::Students, Field::GuardianPhone],
]);
