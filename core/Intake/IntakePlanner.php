<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Matching\Linkage;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
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
 * From what the lists of an intake say to the plan of what they change: sections, staff, new and known students, their
 * enrollments and their guardians. Read as additions, nobody who is missing is touched; read as everyone, who is
 * missing leaves.
 */
final class IntakePlanner
{
    private readonly PlanBuilder $plan;

    private readonly Roster $roster;

    private readonly SectionBook $sections;

    private readonly AddressBook $addresses;

    private readonly GuardianBook $guardians;

    private readonly Identity $identity;

    private readonly Twice $twice;

    private readonly RowCells $cells;

    private int $moved = 0;

    /** @var array<string, RowMatch> place of a row to who it is */
    private array $matches = [];

    private function __construct(
        private readonly LineFolder $folder,
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly Ids $people,
        private readonly UserNames $userNames,
        Linkage $linkage,
    ) {
        $this->plan = new PlanBuilder();
        $this->roster = new Roster($snapshot);
        $this->sections = new SectionBook($snapshot, $wish, $ids, $this->plan);
        $this->addresses = new AddressBook($wish, $ids->instant(), $this->plan);
        $this->guardians = new GuardianBook($snapshot, $wish, $ids, $this->plan, $this->addresses);
        $this->identity = new Identity($snapshot, $this->roster, $linkage, $wish, $people, $this->plan);
        $this->cells = new RowCells($this->roster, $this->sections);
        $this->twice = new Twice(
            array_values(array_filter($folder->students(), fn(StudentLine $l): bool => !$l->stopped() && $l->mayAdd)),
            $wish,
        );
    }

    /**
     * @param  Ids  $ids of the records made, but for students
     * @param  Linkage|null  $linkage of {@see subjects} with everyone known; worked out from the snapshot where null
     * @param Ids|null $people of the students made: the same for the same files, so that a list that was applied knows
     *     its own again
     */
    public static function plan(
        ListContents $contents,
        Snapshot $snapshot,
        IntakeWish $wish,
        Ids $ids,
        UserNames $userNames,
        ?Linkage $linkage = null,
        ?Ids $people = null,
    ): Plan {
        $people ??= $ids;
        $folder = new LineFolder($contents->students);
        if ($linkage === null) {
            $own = self::own($folder, $people);
            $known = array_filter((new Roster($snapshot))->subjects(), fn(Subject $s): bool => !isset($own[$s->id]));
            $linkage = Matcher::link(self::subjects($folder, $wish->schoolId), $known, Weights::published());
        }
        $planner = new self($folder, $snapshot, $wish, $ids, $people, $userNames, $linkage);
        foreach ($contents->questions as $question) {
            $planner->plan->ask($question->answered($wish->answers[$question->id] ?? null));
        }
        $staff = new StaffBook(
            $snapshot,
            $wish,
            $ids,
            $userNames,
            $planner->sections,
            $planner->plan,
            $planner->addresses,
        );
        array_map($staff->section(...), $contents->sections);
        array_map($staff->person(...), $contents->staff);
        $planner->students($contents->students);
        $leaving =
            $wish->everyone === null
                ? 0
                : (new Leavers(
                    $snapshot,
                    $planner->roster,
                    $planner->sections,
                    $wish,
                    $wish->everyone,
                    $planner->plan,
                ))->plan($planner->identity->spokenFor());
        array_map($planner->plan->warn(...), $contents->warnings);
        $planner->sections->warnOfNew();

        return IntakeSentence::of($planner->plan, $wish, $planner->moved, $leaving);
    }

    /**
     * The rows as the matcher sees them.
     *
     * @return list<Subject>
     */
    public static function subjects(LineFolder $folder, string $schoolId): array
    {
        return array_map(fn(StudentLine $line): Subject => Roster::subjectOf($line, $schoolId), $folder->students());
    }

    /**
     * Students whom rows of this list made when it was applied before. They are those rows' own and weigh nothing in
     * judging the others: planned again, the list meets the same people as the first time.
     *
     * @return array<string, true>
     */
    public static function own(LineFolder $folder, Ids $people): array
    {
        $own = [];
        foreach ($folder->students() as $line) {
            $own[$people->for('person', $line->key())] = true;
        }

        return $own;
    }

    /** @param  list<StudentLine>  $lines in the order of the file */
    private function students(array $lines): void
    {
        $folded = [];
        foreach ($this->folder->students() as $line) {
            $folded[$line->place()] = $line;
        }
        $joined = $this->folder->joined();
        $refused = $this->folder->refused();
        $verdicts = [];
        // Rows whose number names them go first: nobody with a likeness can take their student.
        $order = array_values($folded);
        usort($order, fn(StudentLine $a, StudentLine $b): int => $this->sureness($b) <=> $this->sureness($a));
        foreach ($order as $line) {
            if ($line->stopped()) {
                $this->identity->guess($line);
            } else {
                $this->matches[$line->place()] = $this->identity->of($line);
            }
        }
        foreach ($lines as $line) {
            $place = $line->place();
            if (isset($folded[$place])) {
                $verdicts[$place] = $this->line($folded[$place], $this->matches[$place] ?? null);
            } elseif (isset($refused[$place])) {
                $this->identity->guess($line);
                $this->keepOut($line, [$refused[$place][1]], $refused[$place][2]);
            }
        }
        foreach ($lines as $line) {
            $first = $joined[$line->place()] ?? null;
            if ($first !== null) {
                $with = $folded[$first];
                $verdict = $verdicts[$first] ?? Verdict::Cannot;
                $this->plan->row(
                    new PlanRow(
                        $line->number,
                        in_array($verdict, [Verdict::New, Verdict::Update], true) ? Verdict::Same : $verdict,
                        $this->cells->of($line, null, []),
                        "goes with {$with->where()}",
                        $line->problems,
                        sheet: $line->sheet,
                        repairs: $line->repairs,
                    ),
                );
            }
        }
    }

    private function sureness(StudentLine $line): int
    {
        return ($line->account !== '' ? 4 : 0) +
            (isset($this->wish->answers[substr(hash('sha256', 'who|' . $line->key()), 0, 20)]) ? 2 : 0) +
            ($this->roster->subject($this->people->for('person', $line->key())) !== null ? 1 : 0);
    }

    private function line(StudentLine $line, ?RowMatch $match): Verdict
    {
        if ($match === null) {
            $stops = array_values(array_filter($line->problems, fn(Problem $p): bool => $p->stops));

            return $this->keepOut(
                $line,
                $line->problems,
                count($stops) === 1 ? 'a cell cannot be read' : count($stops) . ' cells cannot be read',
            );
        }
        if ($match->verdict === Verdict::Ask || $match->verdict === Verdict::Cannot) {
            return $this->row($line, $match->verdict, $match, $match->why);
        }
        if ($match->person !== null && str_starts_with($match->how, 'ask-')) {
            return $this->request($line, $match, $match->person);
        }
        $holder = $this->identity->holderOf($line->studentNumber);
        if (
            $holder !== null &&
            $holder->id !== $match->person?->id &&
            $match->how !== 'also' &&
            $holder->id !== $this->people->for('person', $line->key())
        ) {
            return $this->keepOut(
                $line,
                [
                    ...$line->problems,
                    new Problem(
                        'student number',
                        "The number $line->studentNumber is {$this->roster->name(
                            $holder->id,
                        )}’s ({$this->roster->describe(
                            $holder->id,
                        )}). Correct the number; or the name, if it is the same student.",
                    ),
                ],
                'the number is someone else’s',
            );
        }
        if ($match->person === null && !$line->mayAdd) {
            $who =
                $line->studentNumber !== ''
                    ? "has the number $line->studentNumber"
                    : ($line->email !== '' && $line->name->full() === ''
                        ? "has the address $line->email"
                        : 'is called ' . $line->name->full());

            return $this->keepOut(
                $line,
                [
                    ...$line->problems,
                    new Problem(
                        $line->studentNumber !== '' ? 'student number' : 'name of the student',
                        "No student known here $who. Bring the list of students in first, or correct the cell.",
                    ),
                ],
                'nobody known is this student',
            );
        }
        $question =
            $match->person === null
                ? $this->twice->question(
                    $line,
                    fn(StudentLine $l): bool => ($this->matches[$l->place()] ?? null)?->person !== null,
                    $this->plan,
                )
                : null;
        if ($question !== null) {
            return $question === 'skip'
                ? $this->row($line, Verdict::Cannot, RowMatch::skipped($question), 'left out, as you said')
                : $this->row($line, Verdict::Ask, $match, 'stands twice, or is another', $question);
        }
        $places = $match->how === 'leave' ? [] : $this->sections->placesFor($line);
        if ($places === null) {
            return $this->row($line, Verdict::Ask, $match, 'which section is meant?', $this->sections->question);
        }

        return $match->person === null
            ? $this->add($line, $places, $match)
            : $this->renew($line, $match, $match->person, $places);
    }

    /** A student of another school: nothing of them changes here; that school is asked. */
    private function request(StudentLine $line, RowMatch $match, Person $person): Verdict
    {
        $school = $this->roster->schoolName($person->schoolId());
        foreach ($this->snapshot->where(TransferRequest::class, 'person_id', $person->id) as $request) {
            if ($request->state() === TransferState::Waiting && $request->toSchoolId() === $this->wish->schoolId) {
                return $this->row($line, Verdict::Same, $match, "$school has been asked and has not answered yet");
            }
        }
        $places = $this->sections->placesFor($line);
        if ($places === null) {
            return $this->row($line, Verdict::Ask, $match, 'which section is meant?', $this->sections->question);
        }
        TransferRequests::ask(
            $this->plan,
            $this->ids->for('transfer', $person->id),
            $person,
            $this->wish->schoolId,
            TransferKind::from(substr($match->how, 4)),
            [
                'given_name' => $line->name->given,
                'family_name' => $line->name->family,
                'birth_date' => $line->birthDate,
                'number' => $line->studentNumber,
                'grade' => $line->grade,
                'sections' => array_map(fn(Place $p): string => $p->sectionId, $places),
                'section_names' => array_map(fn(Place $p): string => $p->name, $places),
            ],
            $this->wish->madeBy,
            $this->ids->instant(),
            $line->where(),
            $line->number,
        );

        return $this->row($line, Verdict::Update, $match, "$school is asked");
    }

    /** @param  list<Place>  $places */
    private function add(StudentLine $line, array $places, RowMatch $match): Verdict
    {
        $id = $this->people->for('person', $line->key());
        if ($this->plan->changes(Entity::Person, $id)) {
            return $this->keepOut(
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
                'search_name' => $line->name->searchKey(),
                'birth_date' => $line->birthDate ?: null,
                'number' => $line->studentNumber ?: null,
                'grade' => $line->grade ?: $this->gradeOf($places),
                ...$this->addresses->of($line->email, 'student')->columns(),
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
                'user_name' => $this->userNames->give($line->name->given, $line->name->family),
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

        return $this->row($line, Verdict::New, $match, $why, null, $places);
    }

    /** @param  list<Place>  $places */
    private function renew(StudentLine $line, RowMatch $match, Person $person, array $places): Verdict
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
                    $named = array_filter($places, fn(Place $p): bool => $p->sectionId === $old->sectionId()) !== [];
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

        return $this->row($line, $changed ? Verdict::Update : Verdict::Same, $match, $why, null, $places);
    }

    private function enroll(Place $place, string $personId, StudentLine $line): void
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

    /** @param  list<Place>  $places */
    private function gradeOf(array $places): ?string
    {
        foreach ($places as $place) {
            if ($place->grade !== null) {
                return $place->grade;
            }
        }

        return null;
    }

    /** @param  list<Problem>  $problems */
    private function keepOut(StudentLine $line, array $problems, string $why): Verdict
    {
        $this->plan->row(
            new PlanRow(
                $line->number,
                Verdict::Cannot,
                $this->cells->of($line, null, []),
                $why,
                $problems,
                sheet: $line->sheet,
                repairs: $line->repairs,
            ),
        );

        return Verdict::Cannot;
    }

    /** @param  list<Place>  $places */
    private function row(
        StudentLine $line,
        Verdict $verdict,
        RowMatch $match,
        string $why,
        ?string $question = null,
        array $places = [],
    ): Verdict {
        $person = $match->person ?? $this->snapshot->find(Person::class, $match->candidate?->subject->id);
        $foreign = $person !== null && !$this->wish->writes($person);
        $this->plan->row(
            new PlanRow(
                $line->number,
                $verdict,
                $this->cells->of($line, $foreign ? null : $person, $places),
                $why,
                $line->problems,
                $foreign ? null : $match->candidate?->subject->id,
                $foreign ? null : ($match->candidate?->subject->number ?: null),
                $foreign ? null : $match->candidate?->probability,
                $foreign ? [] : $match->candidate->evidence ?? [],
                $question ?? ($verdict === Verdict::Ask ? $match->question : null),
                $line->sheet,
                $line->repairs,
            ),
        );

        return $verdict;
    }
}
