<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\StudentNumber;

/** The students known, their open sections and their guardians' contacts, joined for matching and for describing. */
final class Roster
{
    /** @var array<string, list<Enrollment>> person's id to open student enrollments */
    private array $enrollments = [];

    /** @var array<string, list<Guardianship>> */
    private array $guardianships;

    /** @var array<string, Person> "school number" to the student who has it */
    private array $numbers = [];

    public function __construct(private readonly Snapshot $snapshot)
    {
        foreach ($snapshot->all(Enrollment::class) as $enrollment) {
            if ($enrollment->endsOn() === null && $enrollment->role() === EnrollmentRole::Student) {
                $this->enrollments[$enrollment->personId()][] = $enrollment;
            }
        }
        $this->guardianships = $snapshot->by(Guardianship::class, 'student_id');
        foreach ($snapshot->all(Person::class) as $person) {
            if (
                $person->kind() === PersonKind::Student &&
                $person->state() !== PersonState::Merged &&
                $person->number() !== null
            ) {
                $this->numbers[$person->schoolId() . ' ' . StudentNumber::key($person->number())] = $person;
            }
        }
    }

    public function byNumber(string $schoolId, string $number): ?Person
    {
        return $this->numbers["$schoolId " . StudentNumber::key($number)] ?? null;
    }

    /** @return list<Subject> every student who was not merged into another */
    public function subjects(): array
    {
        $subjects = [];
        foreach ($this->snapshot->all(Person::class) as $person) {
            if ($person->kind() !== PersonKind::Student || $person->state() === PersonState::Merged) {
                continue;
            }
            $subjects[] = $this->of($person);
        }

        return $subjects;
    }

    /** Who an account has been merged into, or the account itself. */
    public function survivor(string $personId): string
    {
        return $this->snapshot->find(Person::class, $personId)?->mergedInto() ?? $personId;
    }

    /** One student as the matcher sees them, or null. */
    public function subject(string $personId): ?Subject
    {
        $person = $this->snapshot->find(Person::class, $personId);

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
            $line->place(),
            $line->name->given,
            $line->name->family,
            $line->birthDate,
            $line->studentNumber,
            $line->email,
            $line->grade,
            $schoolId,
            array_values(array_filter($contacts, fn(string $c): bool => $c !== '')),
            array_values(array_filter($names, fn(string $n): bool => str_contains($n, ' '))),
            array_values(
                array_filter(
                    array_map(NameKey::of(...), [$line->homeroom, ...$line->sections]),
                    fn(string $s): bool => $s !== '',
                ),
            ),
        );
    }

    /** @return list<Enrollment> */
    public function enrollmentsOf(string $personId): array
    {
        return $this->enrollments[$personId] ?? [];
    }

    /** @return list<Enrollment> */
    public function homeroomsOf(string $personId): array
    {
        return array_values(
            array_filter(
                $this->enrollmentsOf($personId),
                fn(Enrollment $e): bool => $this->snapshot->find(Section::class, $e->sectionId())?->kind() ===
                    SectionKind::Homeroom,
            ),
        );
    }

    public function isIn(string $personId, string $sectionId): bool
    {
        return $this->enrollmentIn($personId, $sectionId) !== null;
    }

    /** The open enrollment of a person in a section. */
    public function enrollmentIn(string $personId, string $sectionId): ?Enrollment
    {
        foreach ($this->enrollmentsOf($personId) as $enrollment) {
            if ($enrollment->sectionId() === $sectionId) {
                return $enrollment;
            }
        }

        return null;
    }

    public function name(string $personId): string
    {
        $person = $this->snapshot->find(Person::class, $personId);

        return $person === null ? '' : $person->fullName();
    }

    /** "grade 4, 4 Curlew, number 020417, born 2016-03-08": enough to know the child by. */
    public function describe(string $personId): string
    {
        $person = $this->snapshot->find(Person::class, $personId);
        if ($person === null) {
            return '';
        }
        $parts = [];
        $grade = GradeLevel::read((string) $person->grade());
        if ($grade !== null) {
            $parts[] = $grade->label();
        }
        foreach ($this->homeroomsOf($personId) as $enrollment) {
            $parts[] = $this->snapshot->find(Section::class, $enrollment->sectionId())?->name() ?? '';
        }
        if ($person->number() !== null) {
            $parts[] = 'number ' . $person->number();
        }
        if ($person->birthDate() !== null) {
            $parts[] = 'born ' . $person->birthDate();
        }
        if ($person->state() === PersonState::Left) {
            $parts[] = 'has left';
        }

        return implode(', ', $parts);
    }

    public function schoolName(string $schoolId): string
    {
        return $this->snapshot->schools[$schoolId] ?? 'another school';
    }

    private function of(Person $person): Subject
    {
        [$contacts, $names] = $this->guardiansOf($person->id);

        return new Subject(
            $person->id,
            $person->givenName(),
            $person->familyName(),
            (string) $person->birthDate(),
            (string) $person->number(),
            (string) $person->email(),
            (string) $person->grade(),
            $person->schoolId(),
            $contacts,
            $names,
            array_map(
                fn(Enrollment $e): string => NameKey::of(
                    $this->snapshot->find(Section::class, $e->sectionId())?->name() ?? '',
                ),
                $this->enrollmentsOf($person->id),
            ),
            $person->email() !== null && $person->emailState() !== AddressState::Confirmed,
        );
    }

    /** @return array{list<string>, list<string>} addresses and phone numbers, and names */
    private function guardiansOf(string $personId): array
    {
        $contacts = $names = [];
        foreach ($this->guardianships[$personId] ?? [] as $link) {
            if ($link->state() === GuardianshipState::Ended) {
                continue;
            }
            $guardian = $this->snapshot->find(Person::class, $link->guardianId());
            foreach (['email', 'phone'] as $column) {
                $contact = $guardian?->field($column);
                if ($contact !== null) {
                    $contacts[] = $contact;
                }
            }
            if (str_contains((string) $guardian?->searchName(), ' ')) {
                $names[] = (string) $guardian?->searchName();
            }
        }

        return [$contacts, $names];
    }
}
