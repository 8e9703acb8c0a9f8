<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Person;

/** The rows of the plan that are students of the list. */
final class StudentRows
{
    public function __construct(
        private readonly PlanBuilder $plan,
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly RowCells $cells,
    ) {}

    /** @param  list<Problem>  $problems */
    public function keepOut(StudentLine $line, array $problems, string $why): Verdict
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

    /** @param  list<SectionPlace>  $places */
    public function of(
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

    /** A row that says more of the student of an earlier one. */
    public function joined(StudentLine $line, StudentLine $with, Verdict $verdict): void
    {
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
