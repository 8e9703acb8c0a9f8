<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;

/** Closes an intake plan with its tallies and the one sentence that says what applying it does. */
final class IntakeSentence
{
    /**
     * @param  int  $moved students who change their homeroom
     * @param  int  $leaving students who are not in a list of everyone
     */
    public static function of(PlanBuilder $builder, IntakeWish $wish, int $moved, int $leaving = 0): Plan
    {
        $draft = $builder->build($wish->title, '');
        $added = ['student' => 0, 'guardian' => 0, 'staff' => 0];
        foreach ($draft->changes as $change) {
            if ($change->entity === Entity::Person && $change->inserts()) {
                $added[(string) $change->after['kind']]++;
            }
        }
        $verdicts = $draft->verdicts();
        $sections = count(
            array_filter($draft->changes, fn(Change $c): bool => $c->entity === Entity::Section && $c->inserts()),
        );
        $updated = count(
            array_filter($draft->rows, fn(PlanRow $r): bool => $r->verdict === Verdict::Update && $r->matchId !== null),
        );
        $asked = count(
            array_filter(
                $draft->changes,
                fn(Change $c): bool => $c->entity === Entity::TransferRequest && $c->inserts(),
            ),
        );
        $others = $verdicts['update'] - $updated - $asked;
        $questions = count($draft->openQuestions());
        $tallies = [
            new Tally('students_added', $added['student'], 'students added'),
            new Tally('guardians_added', $added['guardian'], 'guardians added'),
            new Tally('students_updated', $updated, 'students updated'),
            new Tally('students_moved', $moved, 'students moved'),
            new Tally('sections_made', $sections, 'sections made'),
            ...$added['staff'] > 0 ? [new Tally('staff_added', $added['staff'], 'staff added')] : [],
            ...$wish->everyone !== null ? [new Tally('students_leaving', $leaving, 'students leaving')] : [],
        ];
        $adds = array_filter([
            $added['student'] > 0 ? Words::count($added['student'], 'student') : '',
            $added['guardian'] > 0 ? Words::count($added['guardian'], 'guardian') : '',
            $added['staff'] > 0 ? Words::count($added['staff'], 'staff member') : '',
        ]);
        $does = array_values(
            array_filter([
                $adds === [] ? '' : 'adds ' . Words::join(array_values($adds)),
                $updated > 0 ? 'updates ' . Words::count($updated, 'student') : '',
                $others > 0
                    ? 'brings ' .
                        Words::count($others, 'section or member of staff', 'sections or members of staff') .
                        ' up to date'
                    : '',
                $asked > 0 ? 'asks other schools for ' . Words::count($asked, 'student') : '',
                $moved > 0 ? 'moves ' . number_format($moved) : '',
                $sections > 0 ? 'makes ' . Words::count($sections, 'section') : '',
                $leaving > 0
                    ? ($wish->everyone?->sectionId === null
                        ? 'marks ' . Words::count($leaving, 'student') . ' as having left'
                        : 'takes ' . Words::count($leaving, 'student') . ' out of the section')
                    : '',
            ]),
        );
        $waits = array_values(
            array_filter([
                $verdicts['ask'] > 0
                    ? Words::count($verdicts['ask'], 'row waits', 'rows wait') . ' for you'
                    : ($questions > 0
                        ? Words::count($questions, 'question waits', 'questions wait') . ' for you'
                        : ''),
                $verdicts['cannot'] > 0 ? Words::count($verdicts['cannot'], 'is left out', 'are left out') : '',
            ]),
        );
        $sentence =
            ($does === []
                ? ($verdicts['same'] > 0 || $waits === []
                    ? 'Nothing to apply: everyone' .
                        ($waits === [] ? '' : ' else') .
                        ' in this list is known as it says'
                    : 'Nothing can be applied yet')
                : 'Apply ' . Words::join($does)) . ($waits === [] ? '.' : '. ' . implode('; ', $waits) . '.');

        return $builder->build($wish->title, $sentence, $tallies);
    }
}
