<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;

/**
 * The guardians a list names. One with an e-mail address is known by it and by a like name, so that brothers and
 * sisters share one account; one without is known by name among the student's own guardians.
 */
final class GuardianBook
{
    /** @var array<string, list<Person>> e-mail to guardians */
    private array $byEmail = [];

    /** @var array<string, list<Person>> phone number to guardians */
    private array $byPhone = [];

    /** @var array<string, array<string, Guardianship>> student id to guardianships, by the guardian */
    private array $ofStudent = [];

    /**
     * @var array<string, array<string, list<Person>>> student id to the guardians they have, by name and by phone
     *     number
     */
    private array $own = [];

    /** @var array<string, string> key in this list to id of a guardian the plan makes */
    private array $made = [];

    /** @var array<string, true> ids of those among them that have a phone number */
    private array $phoned = [];

    public function __construct(
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly PlanBuilder $plan,
        private readonly AddressBook $addresses,
    ) {
        foreach ($snapshot->all(Person::class) as $person) {
            if ($person->kind() !== PersonKind::Guardian || $person->state() === PersonState::Merged) {
                continue;
            }
            if ($person->email() !== null) {
                $this->byEmail[$person->email()][] = $person;
            }
            if ($person->phone() !== null) {
                $this->byPhone[(string) $person->phone()][] = $person;
            }
        }
        foreach ($snapshot->all(Guardianship::class) as $link) {
            $student = $link->studentId();
            $this->ofStudent[$student][$link->guardianId()] = $link;
            $person = $snapshot->find(Person::class, $link->guardianId());
            if ($person !== null && $link->state() !== GuardianshipState::Ended) {
                $this->own[$student]['name ' . $person->searchName()][] = $person;
                $this->own[$student]['phone ' . $person->phone()][] = $person;
                // A teacher who is connected as a guardian is met before a record of theirs that was only listed.
                if ($person->kind() === PersonKind::Staff && $person->email() !== null) {
                    $this->byEmail[$person->email()] = [$person, ...$this->byEmail[$person->email()] ?? []];
                }
            }
        }
    }

    /** @var array<string, string> id of a known guardian to the phone number the list gave first */
    private array $said = [];

    /** @var array<string, string> id of a known guardian to the address the list gave first */
    private array $mailed = [];

    /** @return bool whether the list says anything new of the student's guardians */
    public function attach(StudentLine $line, string $studentId): bool
    {
        $changed = false;
        foreach (self::distinct($line->guardians) as $guardian) {
            $changed = $this->one($guardian, $line, $studentId) || $changed;
        }

        return $changed;
    }

    /**
     * Two guardians of one name in one row are one guardian, unless each has an address of their own.
     *
     * @param  list<GuardianLine>  $guardians
     * @return list<GuardianLine>
     */
    private static function distinct(array $guardians): array
    {
        /** @var list<GuardianLine> $found */
        $found = [];
        // Of each name: the first, the one without an address, and those with one. A student may have a row for each of
        // thousands.
        $named = [];
        foreach ($guardians as $guardian) {
            $key = NameKey::of($guardian->name->full());
            $same = $named[$key] ?? null;
            $at =
                $key === '' || $same === null
                    ? null
                    : ($guardian->email === ''
                        ? $same['first']
                        : $same['blank'] ?? ($same['mails'][$guardian->email] ?? null));
            if ($at === null) {
                $at = count($found);
                $found[] = $guardian;
                $named[$key] ??= ['first' => $at, 'blank' => null, 'mails' => []];
            } else {
                $other = $found[$at];
                $found[$at] = new GuardianLine(
                    $other->name,
                    $other->email ?: $guardian->email,
                    $other->phone ?: $guardian->phone,
                    $other->relationship ?: $guardian->relationship,
                );
            }
            $email = $found[$at]->email;
            $named[$key]['blank'] =
                $email === '' ? $at : ($named[$key]['blank'] === $at ? null : $named[$key]['blank']);
            $named[$key]['mails'][$email] = $at;
        }

        return array_values($found);
    }

    private function one(GuardianLine $guardian, StudentLine $line, string $studentId): bool
    {
        $known = $this->known($guardian, $this->own[$studentId] ?? [], $line);
        if ($known !== null) {
            $this->fill($known, $guardian, $line->number);
            $changed = $this->plan->changes(Entity::Person, $known->id);
            $link = $this->ofStudent[$studentId][$known->id] ?? null;
            if ($link === null) {
                return $this->link($studentId, $known->id, $guardian->relationship, $line->number);
            }
            if ($link->state() === GuardianshipState::Ended) {
                // Somebody ended this on purpose: no list brings it back behind their back.
                $this->plan->warn(
                    ucfirst($line->where()) .
                        ": the connection of {$known->givenName()} {$known->familyName()} was ended here, " .
                        'and stays so.',
                );

                return $changed;
            }
            if ($guardian->relationship !== '' && $link->relationship() === null) {
                $this->plan->update(
                    $link,
                    ['relationship' => $guardian->relationship],
                    "row $line->number",
                    $line->number,
                );
            }

            return $changed || $this->plan->changes(Entity::Guardianship, $link->id);
        }

        return $this->link(
            $studentId,
            $this->make($guardian, $studentId, $line->number),
            $guardian->relationship,
            $line->number,
        );
    }

    /**
     * @param  array<string, list<Person>>  $own guardians the student has, by name and by phone number
     */
    private function known(GuardianLine $guardian, array $own, StudentLine $line): ?Person
    {
        $key = NameKey::of($guardian->name->full());
        if ($guardian->email !== '') {
            $alike = null;
            foreach ($this->byEmail[$guardian->email] ?? [] as $person) {
                if (($key === '' && $this->wish->writes($person)) || $person->searchName() === $key) {
                    return $person;
                }
                // Of another school's guardian it takes the whole name, which the list then brings itself.
                $alike ??= $this->wish->writes($person) && self::alike($key, $person->searchName()) ? $person : null;
            }
            if ($alike !== null) {
                return $alike;
            }
        }
        $same =
            $key !== ''
                ? $own["name $key"] ?? []
                : ($guardian->phone !== ''
                    ? $own["phone $guardian->phone"] ?? []
                    : []);
        foreach ($same as $person) {
            $otherMail = $guardian->email !== '' && $person->email() !== null && $person->email() !== $guardian->email;
            if (!$otherMail || $this->mayHaveMoved($person, $guardian, $same, $line)) {
                return $person;
            }
        }
        // Without an address, the same name with the same phone number: brothers and sisters share the account.
        foreach (
            $guardian->email === '' && $guardian->phone !== '' && str_contains($key, ' ')
                ? $this->byPhone[$guardian->phone] ?? []
                : []
            as $person
        ) {
            if ($person->searchName() === $key) {
                return $person;
            }
        }

        return null;
    }

    /**
     * The student's guardian of that name, at another address: the same person, whose address has changed. Not where
     * the row still gives the old one, somebody else has the new one, or two guardians of the student have the name.
     *
     * @param  list<Person>  $namesakes guardians of the student with the name
     */
    private function mayHaveMoved(Person $person, GuardianLine $guardian, array $namesakes, StudentLine $line): bool
    {
        if ($line->account !== '') {
            // In a sheet that came out of here, addresses may have been corrected.
            return true;
        }

        return count($namesakes) === 1 &&
            ($this->byEmail[$guardian->email] ?? []) === [] &&
            array_filter($line->guardians, fn(GuardianLine $g): bool => $g->email === $person->email()) === [];
    }

    /**
     * One address may serve two parents: they are one person only if their first names are the same, or one is its
     * initial.
     */
    private static function alike(string $a, string $b): bool
    {
        $a = explode(' ', $a)[0];
        $b = explode(' ', $b)[0];

        return $b === '' || $a === $b || ((strlen($a) === 1 || strlen($b) === 1) && $a[0] === $b[0]);
    }

    private function fill(Person $known, GuardianLine $guardian, int $row): void
    {
        // Of staff a list of guardians changes nothing.
        if (!$this->wish->writes($known) || $known->kind() === PersonKind::Staff) {
            return;
        }
        // The newest list knows the number best, where its rows agree on one.
        $fields =
            $guardian->phone !== '' && ($this->said[$known->id] ??= $guardian->phone) === $guardian->phone
                ? ['phone' => $guardian->phone]
                : [];
        if (
            $guardian->email !== '' &&
            $guardian->email !== $known->email() &&
            ($this->mailed[$known->id] ??= $guardian->email) === $guardian->email
        ) {
            $fields = [...$fields, ...$this->addresses->changes($known, $guardian->email, "row $row", $row, '')];
        }
        if ($fields !== []) {
            $this->plan->update($known, $fields, "guardian in row $row", $row);
        }
    }

    private function make(GuardianLine $guardian, string $studentId, int $row): string
    {
        $name = NameKey::of($guardian->name->full());
        $key =
            $guardian->email !== ''
                ? "$guardian->email|" . explode(' ', $name)[0]
                : ($guardian->phone !== '' && str_contains($name, ' ')
                    ? "$guardian->phone|$name"
                    : "$studentId|$name|$guardian->phone");
        if (isset($this->made[$key])) {
            // Another row of the list says more of the same guardian: it goes into the same new record.
            if ($guardian->phone !== '' && !isset($this->phoned[$this->made[$key]])) {
                $this->phoned[$this->made[$key]] = true;
                $this->plan->amend(Entity::Person, $this->made[$key], ['phone' => $guardian->phone]);
            }

            return $this->made[$key];
        }
        $id = $this->ids->for('guardian', $key);
        $this->plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $this->wish->schoolId,
                'kind' => 'guardian',
                'given_name' => $guardian->name->given,
                'family_name' => $guardian->name->family,
                'search_name' => $name,
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                ...$this->addresses->of($guardian->email, 'guardian', $id)->columns(),
                'phone' => $guardian->phone ?: null,
                'state' => 'active',
                'merged_into' => null,
            ],
            "guardian in row $row",
            $row,
        );

        if ($guardian->phone !== '') {
            $this->phoned[$id] = true;
        }

        return $this->made[$key] = $id;
    }

    private function link(string $studentId, string $guardianId, string $relationship, int $row): bool
    {
        $id = $this->ids->for('guardianship', $studentId, $guardianId);
        if (!$this->plan->changes(Entity::Guardianship, $id)) {
            $this->plan->insert(
                Entity::Guardianship,
                $id,
                [
                    'student_id' => $studentId,
                    'guardian_id' => $guardianId,
                    'relationship' => $relationship ?: null,
                    'state' => 'listed',
                    'restriction' => null,
                ],
                "row $row",
                $row,
            );
        }

        return true;
    }
}
