<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Values\GradeLevel;

/** The students known, their open sections and their guardians' contacts, joined for matching and for describing. */
final class Roster
{
    /** @var array<string, list<Row>> person's id to open student enrollments */
    private array $enrollments = [];

    /** @var array<string, list<Row>> */
    private array $guardianships;

    /** @var array<string, Row> "school number" to the student who has it */
    private array $numbers = [];

    public function __construct(private readonly Snapshot $snapshot)
    {
        foreach ($snapshot->all(Entity::Enrollment) as $enrollment) {
            if ($enrollment->maybe('ends_on') === null && $enrollment->text('role') === 'student') {
                $this->enrollments[$enrollment->text('person_id')][] = $enrollment;
            }
        }
        $this->guardianships = $snapshot->by(Entity::Guardianship, 'student_id');
        foreach ($snapshot->all(Entity::Person) as $person) {
            if ($person->text('kind') === 'student' && $person->text('state') !== 'merged' && $person->maybe('number') !== null) {
                $this->numbers[$person->text('school_id').' '.$person->text('number')] = $person;
            }
        }
    }

    public function byNumber(string $schoolId, string $number): ?Row
    {
        return $this->numbers["$schoolId $number"] ?? null;
    }

    /** @return list<Subject> every student who was not merged into another */
    public function subjects(): array
    {
        $subjects = [];
        foreach ($this->snapshot->all(Entity::Person) as $person) {
            if ($person->text('kind') !== 'student' || $person->text('state') === 'merged') {
                continue;
            }
            $subjects[] = $this->of($person);
        }

        return $subjects;
    }

    /** Who an account has been merged into, or the account itself. */
    public function survivor(string $personId): string
    {
        return $this->snapshot->find(Entity::Person, $personId)?->maybe('merged_into') ?? $personId;
    }

    /** One student as the matcher sees them, or null. */
    public function subject(string $personId): ?Subject
    {
        $person = $this->snapshot->find(Entity::Person, $personId);

        return $person === null ? null : $this->of($person);
    }

    public static function subjectOf(StudentLine $line, string $schoolId): Subject
    {
        $contacts = $names = [];
        foreach ($line->guardians as $guardian) {
            $contacts[] = $guardian->email;
            $contacts[] = $guardian->phone;
            $names[] = NameKey::of($guardian->name->full());
        }

        return new Subject(
            $line->place(), $line->name->given, $line->name->family, $line->birthDate, $line->studentNumber, $line->email, $line->grade, $schoolId,
            array_values(array_filter($contacts, fn (string $c): bool => $c !== '')), array_values(array_filter($names, fn (string $n): bool => str_contains($n, ' '))),
            array_values(array_filter(array_map(NameKey::of(...), [$line->homeroom, ...$line->sections]), fn (string $s): bool => $s !== '')),
        );
    }

    /** @return list<Row> */
    public function enrollmentsOf(string $personId): array
    {
        return $this->enrollments[$personId] ?? [];
    }

    /** @return list<Row> */
    public function homeroomsOf(string $personId): array
    {
        return array_values(array_filter($this->enrollmentsOf($personId), fn (Row $e): bool => $this->snapshot->find(Entity::Section, $e->text('section_id'))?->text('kind') === 'homeroom'));
    }

    public function isIn(string $personId, string $sectionId): bool
    {
        return $this->enrollmentIn($personId, $sectionId) !== null;
    }

    /** The open enrollment of a person in a section. */
    public function enrollmentIn(string $personId, string $sectionId): ?Row
    {
        foreach ($this->enrollmentsOf($personId) as $enrollment) {
            if ($enrollment->text('section_id') === $sectionId) {
                return $enrollment;
            }
        }

        return null;
    }

    public function name(string $personId): string
    {
        $person = $this->snapshot->find(Entity::Person, $personId);

        return $person === null ? '' : trim($person->text('given_name').' '.$person->text('family_name'));
    }

    /** "grade 4, 4 Curlew, number 020417, born 2016-03-08": enough to know the child by. */
    public function describe(string $personId): string
    {
        $person = $this->snapshot->find(Entity::Person, $personId);
        if ($person === null) {
            return '';
        }
        $parts = [];
        $grade = GradeLevel::read($person->text('grade'));
        if ($grade !== null) {
            $parts[] = $grade->label();
        }
        foreach ($this->homeroomsOf($personId) as $enrollment) {
            $parts[] = $this->snapshot->find(Entity::Section, $enrollment->text('section_id'))?->text('name') ?? '';
        }
        if ($person->maybe('number') !== null) {
            $parts[] = 'number '.$person->text('number');
        }
        if ($person->maybe('birth_date') !== null) {
            $parts[] = 'born '.$person->text('birth_date');
        }
        if ($person->text('state') === 'left') {
            $parts[] = 'has left';
        }

        return implode(', ', $parts);
    }

    public function schoolName(string $schoolId): string
    {
        return $this->snapshot->schools[$schoolId] ?? 'another school';
    }

    private function of(Row $person): Subject
    {
        [$contacts, $names] = $this->guardiansOf($person->id);

        return new Subject(
            $person->id, $person->text('given_name'), $person->text('family_name'), $person->text('birth_date'),
            $person->text('number'), $person->text('email'), $person->text('grade'), $person->text('school_id'), $contacts, $names,
            array_map(fn (Row $e): string => NameKey::of($this->snapshot->find(Entity::Section, $e->text('section_id'))?->text('name') ?? ''), $this->enrollmentsOf($person->id)),
        );
    }

    /** @return array{list<string>, list<string>} addresses and phone numbers, and names */
    private function guardiansOf(string $personId): array
    {
        $contacts = $names = [];
        foreach ($this->guardianships[$personId] ?? [] as $link) {
            if ($link->text('state') === 'ended') {
                continue;
            }
            $guardian = $this->snapshot->find(Entity::Person, $link->text('guardian_id'));
            foreach (['email', 'phone'] as $column) {
                if ($guardian?->maybe($column) !== null) {
                    $contacts[] = $guardian->text($column);
                }
            }
            if (str_contains((string) $guardian?->text('search_name'), ' ')) {
                $names[] = (string) $guardian?->text('search_name');
            }
        }

        return [$contacts, $names];
    }
}
