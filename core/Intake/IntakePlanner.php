<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Matching\Linkage;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;

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

    private readonly Identity $identity;

    private readonly StandsTwice $twice;

    private readonly StudentRows $rows;

    private readonly StudentBook $students;

    /** @var array<string, RowMatch> place of a row to who it is */
    private array $matches = [];

    private function __construct(
        private readonly LineFolder $folder,
        Snapshot $snapshot,
        private readonly IntakeWish $wish,
        Ids $ids,
        private readonly Ids $people,
        UserNames $userNames,
        Linkage $linkage,
    ) {
        $this->plan = new PlanBuilder();
        $this->roster = new Roster($snapshot);
        $this->sections = new SectionBook($snapshot, $wish, $ids, $this->plan);
        $this->addresses = new AddressBook($wish, $ids->instant(), $this->plan);
        $this->identity = new Identity($snapshot, $this->roster, $linkage, $wish, $people, $this->plan);
        $cells = new RowCells($this->roster, $this->sections);
        $this->rows = new StudentRows($this->plan, $snapshot, $wish, $cells);
        $this->students = new StudentBook(
            $this->plan,
            $snapshot,
            $wish,
            $ids,
            $people,
            $userNames,
            $this->roster,
            $this->sections,
            $this->addresses,
            new GuardianBook($snapshot, $wish, $ids, $this->plan, $this->addresses),
            $this->rows,
        );
        $this->twice = new StandsTwice(
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

        return IntakeSentence::of($planner->plan, $wish, $planner->students->moved(), $leaving);
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
                $this->rows->keepOut($line, [$refused[$place][1]], $refused[$place][2]);
            }
        }
        foreach ($lines as $line) {
            $first = $joined[$line->place()] ?? null;
            if ($first !== null) {
                $this->rows->joined($line, $folded[$first], $verdicts[$first] ?? Verdict::Cannot);
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

            return $this->rows->keepOut(
                $line,
                $line->problems,
                count($stops) === 1 ? 'a cell cannot be read' : count($stops) . ' cells cannot be read',
            );
        }
        if ($match->verdict === Verdict::Ask || $match->verdict === Verdict::Cannot) {
            return $this->rows->of($line, $match->verdict, $match, $match->why);
        }
        if ($match->person !== null && str_starts_with($match->how, 'ask-')) {
            return $this->students->request($line, $match, $match->person);
        }
        $holder = $this->identity->holderOf($line->studentNumber);
        if (
            $holder !== null &&
            $holder->id !== $match->person?->id &&
            $match->how !== 'also' &&
            $holder->id !== $this->people->for('person', $line->key())
        ) {
            return $this->rows->keepOut(
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

            return $this->rows->keepOut(
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
                ? $this->rows->of($line, Verdict::Cannot, RowMatch::skipped($question), 'left out, as you said')
                : $this->rows->of($line, Verdict::Ask, $match, 'stands twice, or is another', $question);
        }
        $places = $match->how === 'leave' ? [] : $this->sections->placesFor($line);
        if ($places === null) {
            return $this->rows->of($line, Verdict::Ask, $match, 'which section is meant?', $this->sections->question);
        }

        return $match->person === null
            ? $this->students->add($line, $places, $match)
            : $this->students->renew($line, $match, $match->person, $places);
    }
}
