<?php

declare(strict_types=1);

namespace App\LookAlikes\Http;

use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\LookAlikes\Http\Wishes\ManyMergesWish;
use App\LookAlikes\Merges;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\Realm;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Vantrel\Core\LookAlikes\ManyMerges;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;

/** Many clusters merged at once, each of them an entry of its own; all of them or none. */
final class ManyMergesController
{
    public function __construct(
        private readonly Merges $merges,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What merging many clusters at once would do')]
    #[Takes(ManyMergesWish::class)]
    public function plan(Realm $realm, Request $request): PlanView
    {
        $clusters = $this->clusters($request);

        return PlanView::of($this->make($realm, $clusters, $this->reach($request)), $this->kit->seed(), Action::Merge);
    }

    #[Answers(PlanView::class, 'Merge them, as looked at: an entry each')]
    #[Takes(ManyMergesWish::class, AsSeen::class)]
    public function apply(Realm $realm, Request $request): PlanView
    {
        $clusters = $this->clusters($request);
        $seen = Wishes::of(AsSeen::class, $request);
        $actor = Person::signedIn($request);
        $reach = $this->reach($request);
        $people = array_merge(...$clusters);
        $plan = $this->ledger->holding(['people' => $people], function () use (
            $realm,
            $clusters,
            $seen,
            $actor,
            $reach,
        ): Plan {
            $plan = $this->make($realm, $clusters, $reach);
            $seen->mustBe($plan, 'one of the accounts');
            foreach ($clusters as $ids) {
                // Anew, for what the one before has written: a child of a guardian, a guardian of a child.
                $this->ledger->apply(
                    $this->merges->plan($realm, $ids, [], $reach)->plan,
                    Person::query()->findOrFail($ids[0])->school_id,
                    $actor,
                    Action::Merge,
                    also: $realm->ids,
                );
            }

            return $plan;
        });

        return PlanView::of($plan, $seen->seed, Action::Merge);
    }

    /**
     * @param  list<list<string>>  $clusters
     * @param  list<string>  $reach
     */
    private function make(Realm $realm, array $clusters, array $reach): Plan
    {
        $people = [];
        foreach (
            $this->snapshots->list(
                Records\Person::class,
                fn(Builder $q): Builder => $q->whereIn('id', array_merge(...$clusters)),
            )
            as $person
        ) {
            $people[$person->id] = $person;
        }

        return ManyMerges::plan(
            array_map(fn(array $ids) => $this->merges->plan($realm, $ids, [], $reach), $clusters),
            $people,
        );
    }

    /** @return list<list<string>> */
    private function clusters(Request $request): array
    {
        return array_map(
            fn(string $c): array => explode('-', $c),
            Wishes::of(ManyMergesWish::class, $request)->clusters,
        );
    }

    /** @return list<string> */
    private function reach(Request $request): array
    {
        return Coordinators::schoolsOf(Person::signedIn($request)->id);
    }
}
