<?php

declare(strict_types=1);

use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SignIn;

/** @param  array<string, string|null>  $with */
function account(string $id, array $with = []): Person
{
    return new Person($id, 1, [
        'school_id' => 'school',
        'kind' => 'student',
        'given_name' => 'Noor',
        'family_name' => 'Haddad',
        'preferred_name' => null,
        'language' => null,
        'search_name' => 'noor haddad',
        'birth_date' => null,
        'number' => null,
        'grade' => '03',
        'email' => null,
        'phone' => null,
        'state' => 'active',
        'merged_into' => null,
        'erased_on' => null,
        ...$with,
    ]);
}

function enrolled(string $id, string $person, string $section, string $begins, ?string $ends): Enrollment
{
    return new Enrollment($id, 1, [
        'section_id' => $section,
        'person_id' => $person,
        'role' => 'student',
        'begins_on' => $begins,
        'ends_on' => $ends,
        'source' => 'list',
    ]);
}

function signsIn(string $id, string $person, ?string $last): SignIn
{
    return new SignIn($id, 1, [
        'person_id' => $person,
        'user_name' => $id,
        'passphrase' => null,
        'password' => null,
        'last_signed_in_at' => $last,
    ]);
}

/**
 * @param list<Record> $people @param list<Record> $enrollments @param list<Record> $signIns @param list<Record> $links
 */
function accounts(array $people, array $enrollments = [], array $signIns = [], array $links = []): Snapshot
{
    $by = fn(array $rows): array => array_combine(array_map(fn(Record $r): string => $r->id, $rows), $rows);

    return new Snapshot([
        'people' => $by($people),
        'enrollments' => $by($enrollments),
        'sign_ins' => $by($signIns),
        'guardianships' => $by($links),
    ]);
}

/** The account that stays, after the merge. */
function survivorOf(Snapshot $snapshot, array $picks = []): Record
{
    $after = $snapshot->with(MergePlanner::plan($snapshot, ['a', 'b'], $picks)->plan);
    foreach (['a', 'b'] as $id) {
        $row = $after->find(Person::class, $id);
        if ($row !== null && $row->field('state') !== 'merged') {
            return $row;
        }
    }
    throw new LogicException('Nobody is left.');
}

function guardianOf(string $id, string $student, string $guardian): Guardianship
{
    return new Guardianship($id, 1, [
        'student_id' => $student,
        'guardian_id' => $guardian,
        'relationship' => null,
        'state' => 'listed',
        'restriction' => null,
        'state_at' => null,
        'state_by' => null,
    ]);
}
