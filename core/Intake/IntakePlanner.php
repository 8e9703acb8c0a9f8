<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Values\GradeLevel;

/**
 * From a list of students to the plan of what it changes: new and known students, their sections and their guardians.
 * Reads the list as additions: nobody who is missing from it is touched.
 */
final class IntakePlanner
{
    private readonly PlanBuilder $plan;

    private readonly Roster $roster;

    private readonly SectionBook $sections;

    private readonly GuardianBook $guardians;

    private readonly Matcher $matcher;

    /** @var array<string, int> person's id to the row that is this person */
    private array $claimed = [];

    private int $moved = 0;

    /** @param  list<StudentLine>  $lines */
    private function __construct(
        array $lines,
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly UserNames $userNames,
    ) {
        $this->plan = new PlanBuilder;
        $this->roster = new Roster($snapshot);
        $this->sections = new SectionBook($snapshot, $wish, $ids, $this->plan);
        $this->guardians = new GuardianBook($snapshot, $wish, $ids, $this->plan);
        // Students whom rows of this list made when it was applied before are those rows' own, and weigh nothing in
        // judging the others: planned again, the list meets the same people as the first time.
        $own = [];
        foreach ($lines as $line) {
            $own[$ids->for('person', $line->key())] = true;
        }
        $this->matcher = new Matcher(array_values(array_filter($this->roster->subjects(), fn (Subject $s): bool => ! isset($own[$s->id]))));
    }

    /** @param  list<StudentLine>  $lines */
    public static function plan(array $lines, Snapshot $snapshot, IntakeWish $wish, Ids $ids, UserNames $userNames): Plan
    {
        $planner = new self($lines, $snapshot, $wish, $ids, $userNames);
        $numbers = [];
        foreach ($lines as $line) {
            $first = $line->studentNumber === '' ? null : ($numbers[$line->studentNumber] ?? null);
            if ($first === null) {
                $numbers[$line->studentNumber] = $line->number;
            }
            $planner->line($line, $first);
        }

        return $planner->build();
    }

    private function line(StudentLine $line, ?int $sameNumberAs): void
    {
        $subject = Roster::subjectOf($line, $this->wish->schoolId);
        if ($line->problems !== []) {
            $this->keepOut($line, $line->problems, count($line->problems) === 1 ? 'a cell cannot be read' : count($line->problems).' cells cannot be read');

            return;
        }
        if ($sameNumberAs !== null) {
            $this->keepOut($line, [new Problem('', "Row $sameNumberAs has the same student number. Delete one of the two, or correct the number.")], "same number as row $sameNumberAs");

            return;
        }
        $match = $this->own($line, $subject) ?? $this->decide($line, $this->matcher->candidates($subject));
        if ($match->verdict === Verdict::Ask || $match->verdict === Verdict::Cannot) {
            $this->row($line, $match->verdict, $match, $match->why);

            return;
        }
        $places = $this->sections->placesFor($line, $match);
        if ($places === null) {
            $this->row($line, Verdict::Ask, $match, 'which section is meant?', $this->sections->question);

            return;
        }
        if ($match->person === null) {
            $this->add($line, $places, $match);
        } else {
            $this->renew($line, $match, $match->person, $places);
        }
    }

    /** The student this very row made when the list was applied before. */
    private function own(StudentLine $line, Subject $subject): ?RowMatch
    {
        $made = $this->roster->subject($this->ids->for('person', $line->key()));

        return $made === null ? null : $this->claim($line, $this->matcher->judge($subject, $made), 'same');
    }

    /** @param  list<Candidate>  $candidates likeliest first */
    private function decide(StudentLine $line, array $candidates): RowMatch
    {
        $candidates = array_slice($candidates, 0, 3);
        $best = $candidates[0] ?? null;
        // Answers go by the row, not by whom it was compared with: a row left out stays out when others have been applied.
        $id = substr(hash('sha256', 'who|'.$line->key()), 0, 20);
        $answer = $this->wish->answers[$id] ?? null;
        $chosen = $this->chosen($line, $answer);
        if ($best === null) {
            return match (true) {
                $chosen !== null => $this->claim($line, $chosen, explode(':', (string) $answer)[2] ?? 'same', $id),
                $answer === 'skip' => RowMatch::skipped($id),
                default => RowMatch::none(),
            };
        }
        $person = $this->snapshot->find(Entity::Person, $best->subject->id);
        $rival = $candidates[1] ?? null;
        $numberAgrees = $line->studentNumber !== '' && $line->studentNumber === $best->subject->number;
        $sure = $best->probability >= Matcher::SAME && $best->caution === '' && $person !== null
            && ($rival === null || $numberAgrees || $rival->probability < 0.5 || $best->probability - $rival->probability > 0.3);
        $elsewhere = $person !== null && $person->text('school_id') !== $this->wish->schoolId && $person->text('state') === 'active';
        if ($sure && ! $elsewhere && $answer === null) {
            return $this->claim($line, $best, 'same');
        }
        $why = match (true) {
            $sure => 'is at '.$this->roster->schoolName($best->subject->schoolId).' now',
            $rival !== null && $rival->probability >= 0.5 => 'two people fit alike',
            $best->caution !== '' => $best->caution,
            default => $this->doubt($best),
        };
        $choices = $this->choices($candidates);
        if ($chosen === null && ! in_array($answer, ['other', 'skip'], true)) {
            $answer = null;
        }
        $this->plan->ask(new Question(
            $id, $line->number,
            "Is row {$line->number} {$this->roster->name($best->subject->id)}?",
            $this->roster->describe($best->subject->id),
            $choices, $best->evidence, $best->probability, $answer,
        ));
        if ($answer === null) {
            return RowMatch::asked($best, $why, $id);
        }
        if ($answer === 'skip') {
            return RowMatch::skipped($id);
        }
        if ($answer === 'other') {
            return RowMatch::none($id);
        }

        return $chosen === null ? RowMatch::asked($best, $why, $id) : $this->claim($line, $chosen, explode(':', $answer)[2] ?? 'same', $id);
    }

    /** Whom an answer of the form `is:ID` or `is:ID:how` names, as long as that student is known. */
    private function chosen(StudentLine $line, ?string $answer): ?Candidate
    {
        $parts = explode(':', (string) $answer);
        $subject = $parts[0] === 'is' ? $this->roster->subject($parts[1] ?? '') : null;

        return $subject === null ? null : $this->matcher->judge(Roster::subjectOf($line, $this->wish->schoolId), $subject);
    }

    private function claim(StudentLine $line, Candidate $candidate, string $how, ?string $question = null): RowMatch
    {
        $id = $candidate->subject->id;
        $before = $this->claimed[$id] ?? null;
        if ($before !== null) {
            return RowMatch::refused($candidate, "row $before is this student already");
        }
        $this->claimed[$id] = $line->number;
        $person = $this->snapshot->find(Entity::Person, $id);

        return $person === null ? RowMatch::none() : RowMatch::found($person, $candidate, $how, $question);
    }

    /** The field that speaks loudest against a likely match, in words. */
    private function doubt(Candidate $best): string
    {
        $least = null;
        foreach ($best->evidence as $e) {
            if ($e->level !== 'alike' && $e->level !== 'not known' && ($least === null || $e->weight < $least->weight)) {
                $least = $e;
            }
        }

        return $least === null ? 'little to go by' : ($least->level === 'differs' ? "{$least->field} differs" : "{$least->field}: {$least->level}");
    }

    /**
     * @param  list<Candidate>  $candidates
     * @return list<Choice>
     */
    private function choices(array $candidates): array
    {
        $choices = [];
        foreach ($candidates as $candidate) {
            $id = $candidate->subject->id;
            $person = $this->snapshot->find(Entity::Person, $id);
            $name = count($candidates) > 1 ? $this->roster->name($id).', '.$this->roster->describe($id) : $this->roster->name($id);
            if ($person !== null && $person->text('school_id') !== $this->wish->schoolId && $person->text('state') === 'active') {
                $school = $this->roster->schoolName($person->text('school_id'));
                $choices[] = new Choice("is:$id:transfer", "Same person, transfer: $name", "ends all sections at $school today; the account and cards go on working");
                $choices[] = new Choice("is:$id:also", "Same person, also enroll: $name", "stays at $school and comes into the sections of this row too");
            } else {
                $choices[] = new Choice("is:$id", "Same person: $name", 'keeps the account and its cards; this row updates it');
            }
        }
        $choices[] = new Choice('other', 'Another person', 'makes a new account');
        $choices[] = new Choice('skip', 'Leave this row out', 'changes nothing');

        return $choices;
    }

    /** @param  list<Place>  $places */
    private function add(StudentLine $line, array $places, RowMatch $match): void
    {
        $id = $this->ids->for('person', $line->key());
        if ($this->plan->changes(Entity::Person, $id)) {
            $this->keepOut($line, [new Problem('', 'Another row of this list says the same of the same student. Delete one of the two.')], 'stands twice in the list');

            return;
        }
        $reason = "row {$line->number}";
        $this->plan->insert(Entity::Person, $id, [
            'school_id' => $this->wish->schoolId, 'kind' => 'student',
            'given_name' => $line->name->given, 'family_name' => $line->name->family, 'search_name' => $line->name->searchKey(),
            'birth_date' => $line->birthDate ?: null, 'number' => $line->studentNumber ?: null,
            'grade' => $line->grade ?: $this->gradeOf($places), 'email' => $line->email ?: null, 'phone' => null,
            'state' => 'active', 'merged_into' => null,
        ], $reason, $line->number);
        $this->plan->insert(Entity::SignIn, $this->ids->for('sign-in', $id), [
            'person_id' => $id, 'user_name' => $this->userNames->give($line->name->given, $line->name->family), 'passphrase' => null, 'password' => null,
        ], $reason, $line->number);
        foreach ($places as $place) {
            $this->enroll($place, $id, $line->number);
        }
        $this->guardians->attach($line, $id);
        $this->row($line, Verdict::New, $match, $match->question === null ? 'nobody known is this student' : 'another person, as you said', null, $places);
    }

    /** @param  list<Place>  $places */
    private function renew(StudentLine $line, RowMatch $match, Row $person, array $places): void
    {
        $fields = array_filter([
            'given_name' => $line->name->given, 'family_name' => $line->name->family, 'birth_date' => $line->birthDate,
            'number' => $line->studentNumber, 'grade' => $line->grade, 'email' => $line->email,
        ], fn (string $v): bool => $v !== '');
        if ($match->question !== null && $match->how === 'also') {
            unset($fields['number'], $fields['grade']);
        } else {
            $fields['school_id'] = $this->wish->schoolId;
            $fields['state'] = 'active';
        }
        $fields['search_name'] = (new \Vantrel\Core\Names\PersonName($fields['given_name'] ?? $person->text('given_name'), $fields['family_name'] ?? $person->text('family_name')))->searchKey();
        $this->plan->update(Entity::Person, $person, $fields, "row {$line->number}", $line->number);
        $changed = $this->plan->changes(Entity::Person, $person->id);
        $back = $person->text('state') === 'left';
        if ($match->how === 'transfer') {
            foreach ($this->roster->enrollmentsOf($person->id) as $enrollment) {
                if (! $this->sections->isHere($enrollment->text('section_id'))) {
                    $this->plan->update(Entity::Enrollment, $enrollment, ['ends_on' => $this->wish->today], "transfer, row {$line->number}", $line->number);
                }
            }
        }
        $moves = 0;
        foreach ($places as $place) {
            if ($this->roster->isIn($person->id, $place->sectionId)) {
                continue;
            }
            if ($place->homeroom && $match->how !== 'also') {
                foreach ($this->roster->homeroomsOf($person->id) as $old) {
                    if ($this->sections->isHere($old->text('section_id'))) {
                        $this->plan->update(Entity::Enrollment, $old, ['ends_on' => $this->wish->today], "moves to {$place->name}, row {$line->number}", $line->number);
                        $moves = 1;
                    }
                }
            }
            $this->enroll($place, $person->id, $line->number);
            $changed = true;
        }
        $this->moved += $moves;
        $changed = $this->guardians->attach($line, $person->id) || $changed;
        $why = match (true) {
            ! $changed => '',
            $back => 'had left, is back',
            $moves > 0 => 'changes homeroom',
            default => '',
        };
        $this->row($line, $changed ? Verdict::Update : Verdict::Same, $match, $why, null, $places);
    }

    private function enroll(Place $place, string $personId, int $row): void
    {
        $id = $this->ids->for('enrollment', $place->sectionId, $personId);
        if ($this->plan->changes(Entity::Enrollment, $id)) {
            return;
        }
        $this->plan->insert(Entity::Enrollment, $id, [
            'section_id' => $place->sectionId, 'person_id' => $personId, 'role' => 'student',
            'begins_on' => $this->wish->today, 'ends_on' => null, 'source' => 'list',
        ], "row $row", $row);
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
    private function keepOut(StudentLine $line, array $problems, string $why): void
    {
        $this->plan->row(new PlanRow($line->number, Verdict::Cannot, $this->cells($line, null, []), $why, $problems));
    }

    /** @param  list<Place>  $places */
    private function row(StudentLine $line, Verdict $verdict, RowMatch $match, string $why, ?string $question = null, array $places = []): void
    {
        $this->plan->row(new PlanRow(
            $line->number, $verdict, $this->cells($line, $match->person ?? $this->snapshot->find(Entity::Person, $match->candidate?->subject->id), $places), $why, [],
            $match->candidate?->subject->id, $match->candidate?->subject->number ?: null, $match->candidate?->probability, $match->candidate->evidence ?? [],
            $question ?? ($verdict === Verdict::Ask ? $match->question : null),
        ));
    }

    /**
     * @param  list<Place>  $places
     * @return array<string, Cell>
     */
    private function cells(StudentLine $line, ?Row $person, array $places): array
    {
        $was = fn (string $column, string $now): Cell => $person === null || $now === '' ? Cell::same($now ?: ($person?->text($column) ?? '')) : new Cell($person->text($column), $now);
        $grade = fn (string $code): string => GradeLevel::read($code)?->short() ?? $code;
        $name = $person === null ? Cell::same($line->name->full()) : new Cell(trim($person->text('given_name').' '.$person->text('family_name')), $line->name->full());
        $gradeCell = $was('grade', $line->grade);
        $written = array_values(array_filter([$line->homeroom, ...$line->sections], fn (string $s): bool => $s !== ''));
        $after = $places === [] ? implode(', ', $written) : implode(', ', array_map(fn (Place $p): string => $p->name, $places));
        $before = $after;
        if ($person !== null && $places !== []) {
            $homerooms = array_map(fn (Row $e): string => $this->sections->nameOf($e->text('section_id')), $this->roster->homeroomsOf($person->id));
            $fresh = array_filter($places, fn (Place $p): bool => ! $this->roster->isIn($person->id, $p->sectionId));
            $before = $fresh === [] ? $after : implode(', ', $homerooms);
        }

        return [
            'Name' => $name,
            'Number' => $was('number', $line->studentNumber),
            'Grade' => new Cell($grade($gradeCell->before), $grade($gradeCell->after)),
            'Section' => new Cell($before, $after),
            'Guardians' => Cell::same(implode(', ', array_map(fn (GuardianLine $g): string => $g->name->full() ?: $g->email ?: $g->phone, $line->guardians))),
        ];
    }

    private function build(): Plan
    {
        $this->sections->warnOfNew();

        return IntakeSentence::of($this->plan, $this->wish, $this->moved);
    }
}
