<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Accounts\TransferWish;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;
use Vantrel\Core\Records\TransferState;

/**
 * Writes into the plan what a row says of a student: a new one, one who is known, or one another school is asked for.
 */
final class StudentBook
{
    /** How many change homeroom. */
    private int $moved = 0;

    /** @param  Ids  $people of the students made */
    public function __construct(
        private readonly PlanBuilder $plan,
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly Ids $people,
        private readonly UserNames $userNames,
        private readonly Roster $roster,
        private readonly SectionBook $sections,
        private readonly AddressBook $addresses,
        private readonly GuardianBook $guardians,
        private readonly StudentRows $rows,
    ) {}

    public function moved(): int
    {
        return $this->moved;
    }

    /** @param  list<SectionPlace>  $places */
    public function add(StudentLine $line, array $places, RowMatch $match): Verdict
    {
        $id = $this->people->for('person', $line->key());
        if ($this->plan->changes(Entity::Person, $id)) {
            return $this->rows->keepOut(
                $line,
                [
                    new Problem(
                        '',
                        'Another row of this list says the same of the same student. Delete one of the two, ' .
                            'or give each a number or birth date.',
                    ),
                ],
                'stands twice in the list',
            );
        }
        $reason = $line->where();
        $this->plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $this->wish->schoolId,
                'kind' => 'student',
                'given_name' => $line->name->given,
                'family_name' => $line->name->family,
                'preferred_name' => null,
                'language' => null,
                ...$this->aside($line, null),
                'search_name' => $line->name->searchKey(),
                'birth_date' => $line->birthDate ?: null,
                'number' => $line->studentNumber ?: null,
                'grade' => $line->grade ?: $this->gradeOf($places),
                ...$this->addresses->of($line->email, 'student', $id)->columns(),
                'phone' => null,
                'state' => 'active',
                'merged_into' => null,
            ],
            $reason,
            $line->number,
        );
        $this->plan->insert(
            Entity::SignIn,
            $this->ids->for('sign-in', $id),
            [
                'person_id' => $id,
                'user_name' => $this->userNames->give(
                    $this->wish->byPreferred && $line->preferred !== '' ? $line->preferred : $line->name->given,
                    $line->name->family,
                ),
                'passphrase' => null,
                'password' => null,
            ],
            $reason,
            $line->number,
        );
        foreach ($places as $place) {
            $this->enroll($place, $id, $line);
        }
        $this->guardians->attach($line, $id);
        $why = match (true) {
            $match->question !== null => 'another person, as you said',
            $match->apart !== '' => "not $match->apart",
            default => 'nobody known is this student',
        };

        return $this->rows->of($line, Verdict::New, $match, $why, null, $places);
    }

    /** @param  list<SectionPlace>  $places */
    public function renew(StudentLine $line, RowMatch $match, Person $person, array $places): Verdict
    {
        $name = NameChoice::of($line, $person, $match->candidate->evidence ?? []);
        $fields = array_filter(
            [
                'given_name' => $name->given,
                'family_name' => $name->family,
                'birth_date' => $line->birthDate,
                'number' => $line->studentNumber,
                'grade' => $line->grade,
            ],
            fn(string $v): bool => $v !== '',
        );
        if ($match->how === 'also' || $match->how === 'leave') {
            unset($fields['number'], $fields['grade']);
        } elseif ($line->mayAdd) {
            $fields['school_id'] = $this->wish->schoolId;
            $fields['state'] = 'active';
        }
        $fields['search_name'] = (new PersonName(
            $fields['given_name'] ?? $person->givenName(),
            $fields['family_name'] ?? $person->familyName(),
        ))->searchKey();
        $this->plan->update(
            $person,
            [
                ...$fields,
                ...$this->aside($line, $person),
                ...$this->addresses->changes($person, $line->email, $line->where(), $line->number, $line->sheet),
            ],
            $line->where(),
            $line->number,
        );
        $changed = $this->plan->changes(Entity::Person, $person->id);
        $back = $person->state() === PersonState::Left && ($fields['state'] ?? '') === 'active';
        if ($match->how === 'transfer') {
            foreach ($this->roster->enrollmentsOf($person->id) as $enrollment) {
                if (!$this->sections->isHere($enrollment->sectionId())) {
                    $this->plan->update(
                        $enrollment,
                        ['ends_on' => $this->wish->today],
                        'transfer, ' . $line->where(),
                        $line->number,
                    );
                }
            }
        }
        $moves = 0;
        foreach ($places as $place) {
            $open = $this->roster->enrollmentIn($person->id, $place->sectionId);
            if ($open !== null) {
                if ($line->endsOn !== '') {
                    $this->plan->update($open, ['ends_on' => $line->endsOn], $line->where(), $line->number);
                    $changed = true;
                }

                continue;
            }
            if ($line->endsOn !== '' && $line->endsOn <= $this->wish->today) {
                continue;
            }
            if ($place->homeroom && $match->how !== 'also') {
                foreach ($this->roster->homeroomsOf($person->id) as $old) {
                    $named =
                        array_filter($places, fn(SectionPlace $p): bool => $p->sectionId === $old->sectionId()) !== [];
                    if (!$named && $this->sections->isHere($old->sectionId())) {
                        $this->plan->update(
                            $old,
                            ['ends_on' => $this->wish->today],
                            "moves to {$place->name}, " . $line->where(),
                            $line->number,
                        );
                        $moves = 1;
                    }
                }
            }
            $this->enroll($place, $person->id, $line);
            $changed = true;
        }
        $this->moved += $moves;
        $changed = $this->guardians->attach($line, $person->id) || $changed;
        $why = match (true) {
            !$changed => '',
            $back => 'had left, is back',
            $moves > 0 => 'changes homeroom',
            default => '',
        };

        return $this->rows->of($line, $changed ? Verdict::Update : Verdict::Same, $match, $why, null, $places);
    }

    /** A student of another school: nothing of them changes here; that school is asked. */
    public function request(StudentLine $line, RowMatch $match, Person $person): Verdict
    {
        $school = $this->roster->schoolName($person->schoolId());
        foreach ($this->snapshot->where(TransferRequest::class, 'person_id', $person->id) as $request) {
            if ($request->state() === TransferState::Waiting && $request->toSchoolId() === $this->wish->schoolId) {
                return $this->rows->of($line, Verdict::Same, $match, "$school has been asked and has not answered yet");
            }
        }
        $places = $this->sections->placesFor($line);
        if ($places === null) {
            return $this->rows->of($line, Verdict::Ask, $match, 'which section is meant?', $this->sections->question);
        }
        TransferRequests::ask(
            $this->plan,
            $this->ids->for('transfer', $person->id),
            new TransferWish(
                $person,
                $this->wish->schoolId,
                TransferKind::from(substr($match->how, 4)),
                [
                    'given_name' => $line->name->given,
                    'family_name' => $line->name->family,
                    'birth_date' => $line->birthDate,
                    'number' => $line->studentNumber,
                    'grade' => $line->grade,
                    'sections' => array_map(fn(SectionPlace $p): string => $p->sectionId, $places),
                    'section_names' => array_map(fn(SectionPlace $p): string => $p->name, $places),
                ],
                $this->wish->madeBy,
            ),
            $this->ids->instant(),
            $line->where(),
            $line->number,
        );

        return $this->rows->of($line, Verdict::Update, $match, "$school is asked");
    }

    /**
     * What a list says of somebody beside who they are; where it says nothing, what is known stays.
     *
     * @return array<string, string|null>
     */
    private function aside(StudentLine $line, ?Person $person): array
    {
        $aside = $line->language === '' ? [] : ['language' => $line->language];
        if ($line->preferred !== '') {
            // Who goes by the name on record goes by no other.
            $given = $person === null ? $line->name->given : $person->givenName();
            $aside['preferred_name'] = $line->preferred === $given ? null : $line->preferred;
        }

        return $aside;
    }

    private function enroll(SectionPlace $place, string $personId, StudentLine $line): void
    {
        $id = $this->ids->for('enrollment', $place->sectionId, $personId);
        if ($this->plan->changes(Entity::Enrollment, $id)) {
            return;
        }
        $this->plan->insert(
            Entity::Enrollment,
            $id,
            [
                'section_id' => $place->sectionId,
                'person_id' => $personId,
                'role' => 'student',
                'begins_on' => $line->beginsOn ?: $this->wish->today,
                'ends_on' => $line->endsOn ?: null,
                'source' => 'list',
            ],
            $line->where(),
            $line->number,
        );
    }

    /** @param  list<SectionPlace>  $places */
    private function gradeOf(array $places): ?string
    {
        foreach ($places as $place) {
            if ($place->grade !== null) {
                return $place->grade;
            }
        }

        return null;
    }
}
