<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\Realm;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Roll\Http\Wishes\TransferManyWish;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Roll\Transfers;

/** Students who go to another school of whoever sends them: nobody has to be asked, and both ledgers say so. */
final class TransferManyController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What it would be to let students go to another school one coordinates')]
    #[Takes(TransferManyWish::class)]
    public function plan(Realm $realm, Request $request): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of(
            $this->make($realm, Wishes::of(TransferManyWish::class, $request), $request, $seed),
            $seed,
            Action::Transfer,
        );
    }

    #[Answers(PlanView::class, 'Let them go there, as looked at; stands in the ledgers of all schools concerned')]
    #[Takes(TransferManyWish::class, AsSeen::class)]
    public function apply(Realm $realm, Request $request): PlanView
    {
        $wish = Wishes::of(TransferManyWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $seed = $this->kit->fresh($seen->seed);
        $plan = $this->ledger->holding(['people' => $wish->people], function () use (
            $realm,
            $wish,
            $request,
            $seen,
            $seed,
        ): Plan {
            $plan = $this->make($realm, $wish, $request, $seed);
            $seen->mustBe($plan, 'one of the students');
            // An entry for each school they go from: it stands there and at the other, and at no third one.
            foreach ($this->bySchool($wish->people) as $home => $people) {
                $part = $this->make($realm, new TransferManyWish($people, $wish->to), $request, $seed);
                if (!$part->isEmpty()) {
                    $actor = Person::signedIn($request);
                    $this->ledger->apply($part, $wish->to, $actor, Action::Transfer, also: [(string) $home]);
                }
            }

            return $plan;
        });

        return PlanView::of($plan, $seed, Action::Transfer);
    }

    /**
     * @param  list<string>  $people
     * @return array<string, list<string>> school to those of it, those who are there already left out
     */
    private function bySchool(array $people): array
    {
        $homes = [];
        foreach (
            DB::table('people')
                ->whereIn('id', $people)
                ->orderBy('school_id')
                ->get(['id', 'school_id'])
            as $person
        ) {
            $homes[(string) $person->school_id][] = (string) $person->id;
        }

        return $homes;
    }

    private function make(Realm $realm, TransferManyWish $wish, Request $request, string $seed): Plan
    {
        $there = DB::table('people')
            ->whereIn('id', $wish->people)
            ->whereIn('school_id', $realm->ids)
            ->orderBy('family_name')
            ->orderBy('given_name')
            ->orderBy('id')
            ->pluck('id')
            ->map(fn(mixed $id): string => (string) $id)
            ->all();
        $to = in_array($wish->to, $realm->ids, true) ? School::query()->find($wish->to) : null;
        if ($to === null || count($there) !== count(array_unique($wish->people))) {
            throw new NotFoundHttpException();
        }
        $now = $this->kit->ids($seed)->instant();

        return Transfers::plan(
            array_values($there),
            $this->snapshots->forTransfer(array_values($there), $to->id),
            $to->id,
            [(int) $to->lowest_grade, (int) $to->highest_grade],
            Person::signedIn($request)->id,
            SchoolDay::at($to->id, $now),
            $now,
        );
    }
}
