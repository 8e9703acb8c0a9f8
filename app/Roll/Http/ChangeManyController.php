<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Roll\Http\Wishes\ChangeManyWish;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Roll\ChangeMany;
use Vantrel\Core\Roll\ManyKind;
use Vantrel\Core\Roll\ManyWish;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\Values\Language;

/** Many students of a school at once: looked at first, then changed as looked at. */
final class ChangeManyController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What changing many students at once would do')]
    #[Takes(ChangeManyWish::class)]
    public function plan(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(ChangeManyWish::class, $request);
        $seed = $this->kit->seed();

        return PlanView::of($this->make($school, $wish, $seed), $seed, Action::Edit);
    }

    #[Answers(PlanView::class, 'Change them, as looked at')]
    #[Takes(ChangeManyWish::class, AsSeen::class)]
    public function apply(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(ChangeManyWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $seed = $this->kit->fresh($seen->seed);
        $actor = Person::signedIn($request);
        $plan = $this->ledger->holding(['people' => $wish->people], function () use (
            $school,
            $wish,
            $seen,
            $seed,
            $actor,
        ): Plan {
            $plan = $this->make($school, $wish, $seed);
            $seen->mustBe($plan, 'one of the students');
            $this->ledger->apply($plan, $school->id, $actor, Action::Edit);

            return $plan;
        });

        return PlanView::of($plan, $seed, Action::Edit);
    }

    private function make(School $school, ChangeManyWish $wish, string $seed): Plan
    {
        $people = $this->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q
                ->whereIn('id', $wish->people)
                ->where('school_id', $school->id)
                ->where('state', '!=', Records\PersonState::Merged)
                ->orderBy('family_name')
                ->orderBy('given_name')
                ->orderBy('id'),
        );
        $today = SchoolDay::at($school->id, $this->kit->ids($seed)->instant());
        $enrollments = [];
        foreach (
            $wish->what !== ManyKind::Leave
                ? []
                : $this->snapshots->list(
                    Records\Enrollment::class,
                    fn(Builder $q): Builder => $q
                        ->whereIn('person_id', array_map(fn(Records\Person $p): string => $p->id, $people))
                        ->where('role', 'student')
                        ->where(fn(Builder $q) => $q->whereNull('ends_on')->orWhere('ends_on', '>', $today)),
                )
            as $enrollment
        ) {
            $enrollments[$enrollment->personId()][] = $enrollment;
        }

        return ChangeMany::plan(
            new ManyWish($wish->what, $this->grade($school, $wish), $this->language($wish), $wish->shown),
            $people,
            $enrollments,
            $today,
        );
    }

    private function language(ChangeManyWish $wish): ?Language
    {
        return $wish->language === ''
            ? null
            : Language::read($wish->language) ?? throw new Refusal('This language is not known here.', 'language');
    }

    private function grade(School $school, ChangeManyWish $wish): ?GradeLevel
    {
        if ($wish->what !== ManyKind::Grade || $wish->grade === '') {
            return null;
        }
        $grade = GradeLevel::read($wish->grade);
        if ($grade === null || $grade->order < $school->lowest_grade || $grade->order > $school->highest_grade) {
            throw new Refusal('This school has no such grade.', 'grade');
        }

        return $grade;
    }
}
