<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\GradeLevel;

/** Staff and sections as lists name them. Staff are known by their e-mail address, a section's teacher also by name. */
final class StaffBook
{
    /** @var array<string, Person> e-mail to member of staff */
    private array $byEmail = [];

    /** @var array<string, list<Person>> plain name to members of staff of this school */
    private array $byName = [];

    /** @var array<string, list<Enrollment>> section's id to its open staff enrollments */
    private array $staffOf = [];

    /** @var array<string, string> e-mail to id of someone the plan makes */
    private array $made = [];

    /** @var array<string, string> e-mail to the row that names it */
    private array $rows = [];

    public function __construct(
        Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly UserNames $userNames,
        private readonly SectionBook $sections,
        private readonly PlanBuilder $plan,
        private readonly AddressBook $addresses,
    ) {
        foreach ($snapshot->all(Person::class) as $person) {
            if ($person->kind() === PersonKind::Staff && $person->state() !== PersonState::Merged) {
                if ($person->email() !== null) {
                    $this->byEmail[$person->email()] = $person;
                }
                if ($person->schoolId() === $wish->schoolId) {
                    $this->byName[$person->searchName()][] = $person;
                }
            }
        }
        foreach ($snapshot->all(Enrollment::class) as $enrollment) {
            if ($enrollment->endsOn() === null && $enrollment->role() !== EnrollmentRole::Student) {
                $this->staffOf[$enrollment->sectionId()][] = $enrollment;
            }
        }
    }

    public function person(StaffLine $line): void
    {
        $problems = $line->problems;
        $before = $this->rows[$line->email] ?? null;
        if (
            $problems === [] &&
            $before !== null &&
            $line->name->full() !== '' &&
            NameKey::of($line->name->full()) !== $before
        ) {
            $problems[] = new Problem(
                'e-mail',
                "Two people of this list have the address $line->email. Staff sign in with it, so each needs " .
                    'their own.',
            );
        }
        $known = $this->byEmail[$line->email] ?? null;
        if (
            $problems === [] &&
            $known !== null &&
            !$this->wish->writes($known) &&
            ($line->sections === [] || $known->state() !== PersonState::Active)
        ) {
            // Whether they work or worked there is for that school to say.
            $problems[] = new Problem(
                'e-mail',
                "$line->email is on the staff of another school of the district. Invite them into a section " .
                    'instead; that school can hand them over.',
            );
        }
        if ($problems === [] && $known === null && !isset($this->made[$line->email]) && $line->name->full() === '') {
            $problems[] = new Problem(
                'e-mail',
                "No member of staff has the address $line->email. Bring the list of staff in first, or " .
                    'correct the address.',
            );
        }
        if (
            $problems === [] &&
            $known === null &&
            !isset($this->made[$line->email]) &&
            $this->userNames->isTaken($line->email)
        ) {
            $problems[] = new Problem(
                'e-mail',
                "Someone who is not on the staff signs in with $line->email already. Give the school’s " .
                    'address, or clear up the other account first.',
            );
        }
        if (array_filter($problems, fn(Problem $p): bool => $p->stops) !== []) {
            $this->row(
                $line->number,
                $line->sheet,
                Verdict::Cannot,
                $line->name->full(),
                implode(', ', $line->sections),
                'a cell cannot be read',
                $problems,
            );

            return;
        }
        $this->rows[$line->email] ??= NameKey::of($line->name->full());
        $changed = false;
        $id = $known->id ?? ($this->made[$line->email] ?? null);
        $new = $id === null;
        if ($id === null) {
            $id = $this->make($line->name, $line->email, $line->phone, $line->number);
        } elseif ($known !== null && $this->wish->writes($known)) {
            $this->plan->update(
                $known,
                array_filter(
                    ['phone' => $known->phone() === null ? $line->phone : '', 'state' => 'active'],
                    fn(string $v): bool => $v !== '',
                ),
                "row $line->number",
                $line->number,
            );
            $changed = $this->plan->changes(Entity::Person, $known->id);
        }
        $names = [];
        foreach ($line->sections as $name) {
            $place = $this->sections->placeFor($name, false, '', $line->number);
            if ($place !== null) {
                $names[] = $place->name;
                $changed = $this->teach($place->sectionId, $id, $line->role, $line->number) || $changed;
            }
        }
        $this->row(
            $line->number,
            $line->sheet,
            $new ? Verdict::New : ($changed ? Verdict::Update : Verdict::Same),
            $line->name->full() ?: trim($known?->givenName() . ' ' . $known?->familyName()),
            implode(', ', $names),
            $new ? 'nobody on the staff has this address' : '',
            $line->problems,
        );
    }

    public function section(SectionLine $line): void
    {
        $problems = $line->problems;
        $teacher = $this->teacherOf($line, $problems);
        if (array_filter($problems, fn(Problem $p): bool => $p->stops) !== []) {
            $this->row(
                $line->number,
                $line->sheet,
                Verdict::Cannot,
                '',
                $line->name,
                'a cell cannot be read',
                $problems,
                $line->grade,
            );

            return;
        }
        $known = $this->sections->known($line->name);
        $place = $this->sections->placeFor($line->name, $line->homeroom, $line->grade, $line->number, true);
        if ($place === null) {
            return;
        }
        $changed = false;
        if ($known !== null && $line->grade !== '') {
            $this->plan->update($known, ['grade' => $line->grade], "row $line->number", $line->number);
            $changed = $this->plan->changes(Entity::Section, $known->id);
        }
        if ($teacher !== null) {
            $changed = $this->teach($place->sectionId, $teacher, 'lead', $line->number) || $changed;
        }
        $this->row(
            $line->number,
            $line->sheet,
            $known === null ? Verdict::New : ($changed ? Verdict::Update : Verdict::Same),
            $line->teacher->full() ?: $line->teacherEmail,
            $place->name,
            '',
            $problems,
            $line->grade,
        );
    }

    /** @param  list<Problem>  $problems */
    private function teacherOf(SectionLine $line, array &$problems): ?string
    {
        if ($line->teacherEmail !== '') {
            $known = $this->byEmail[$line->teacherEmail]->id ?? ($this->made[$line->teacherEmail] ?? null);
            if ($known === null && $line->teacher->full() !== '' && !$this->userNames->isTaken($line->teacherEmail)) {
                return $this->make($line->teacher, $line->teacherEmail, '', $line->number);
            }
            if ($known === null) {
                $problems[] = new Problem(
                    'teacher e-mail',
                    "No member of staff has the address $line->teacherEmail. The section is made without a " .
                        'lead; bring the staff in, or correct the address.',
                    false,
                );
            }

            return $known;
        }
        if ($line->teacher->full() === '') {
            return null;
        }
        $key = NameKey::of($line->teacher->full());
        $found = $this->byName[$key] ?? [];
        if ($found === []) {
            // "Ms. Okonjo", "Okonjo": a family name that one member of staff has.
            $family = (string) preg_replace('/^(mr|mrs|ms|miss|dr|prof|sr|sra|mme|m) /', '', $key);
            foreach ($this->byName as $people) {
                foreach ($people as $person) {
                    if (NameKey::of($person->familyName()) === $family) {
                        $found[] = $person;
                    }
                }
            }
        }
        if (count($found) !== 1) {
            $problems[] = new Problem(
                'teacher',
                ($found === [] ? 'Nobody on the staff is called' : 'More than one member of staff is called') .
                    " {$line->teacher->full()}. The section is made without a lead; add the teacher’s " .
                    'e-mail, or invite them from the section.',
                false,
            );

            return null;
        }

        return $found[0]->id;
    }

    private function make(PersonName $name, string $email, string $phone, int $row): string
    {
        $id = $this->ids->for('staff', $email);
        $this->plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $this->wish->schoolId,
                'kind' => 'staff',
                'given_name' => $name->given,
                'family_name' => $name->family,
                'search_name' => $name->searchKey(),
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                ...$this->addresses->of($email, 'staff', $id)->columns(),
                'phone' => $phone ?: null,
                'state' => 'active',
                'merged_into' => null,
            ],
            "row $row",
            $row,
        );
        $this->plan->insert(
            Entity::SignIn,
            $this->ids->for('sign-in', $id),
            ['person_id' => $id, 'user_name' => $email, 'passphrase' => null, 'password' => null],
            "row $row",
            $row,
        );

        return $this->made[$email] = $id;
    }

    /** @return bool whether that is anything new */
    private function teach(string $sectionId, string $personId, string $role, int $row): bool
    {
        $hasLead = false;
        foreach ($this->staffOf[$sectionId] ?? [] as $enrollment) {
            if ($enrollment->personId() === $personId) {
                return false;
            }
            $hasLead = $hasLead || $enrollment->role() === EnrollmentRole::Lead;
        }
        $id = $this->ids->for('teaches', $sectionId, $personId);
        if ($this->plan->changes(Entity::Enrollment, $id)) {
            return true;
        }
        // A section has one lead: whoever comes second teaches with them, until the lead is handed over.
        $role = $role === 'lead' && $hasLead ? 'co_teacher' : $role;
        $values = [
            'section_id' => $sectionId,
            'person_id' => $personId,
            'role' => $role,
            'begins_on' => $this->wish->today,
            'ends_on' => null,
            'source' => 'list',
        ];
        $this->plan->insert(Entity::Enrollment, $id, $values, "row $row", $row);
        $this->staffOf[$sectionId][] = new Enrollment($id, 0, $values);

        return true;
    }

    /** @param  list<Problem>  $problems */
    private function row(
        int $number,
        string $sheet,
        Verdict $verdict,
        string $name,
        string $section,
        string $why,
        array $problems,
        string $grade = '',
    ): void {
        $this->plan->row(
            new PlanRow(
                $number,
                $verdict,
                [
                    'Name' => Cell::same($name),
                    'Number' => Cell::same(''),
                    'Grade' => Cell::same(GradeLevel::read($grade)?->short() ?? ''),
                    'Section' => Cell::same($section),
                    'Guardians' => Cell::same(''),
                ],
                $why,
                $problems,
                sheet: $sheet,
            ),
        );
    }
}
