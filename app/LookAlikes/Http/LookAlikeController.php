<?php

declare(strict_types=1);

namespace App\LookAlikes\Http;

use App\Ledger\Ledger;
use App\Ledger\LedgerLine;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\LookAlikes\Finding;
use App\LookAlikes\Http\Wishes\ApartWish;
use App\LookAlikes\Http\Wishes\MergeWish;
use App\LookAlikes\Http\Wishes\PicksWish;
use App\LookAlikes\Jobs\FindLookAlikes;
use App\LookAlikes\Kept;
use App\LookAlikes\Merges;
use App\LookAlikes\SideBySide;
use App\LookAlikes\Views\ClusterDetail;
use App\LookAlikes\Views\ClusterPage;
use App\LookAlikes\Views\HeldAgainst;
use App\LookAlikes\Views\WaitingCount;
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
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\Merge;
use Vantrel\Core\LookAlikes\ToldApart;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Records;
use Vantrel\Core\Records\PersonKind;

/** Accounts that may be one person: listed, held against each other, merged, or told apart. */
final class LookAlikeController
{
    /** What grown-ups have in common, where students have guardians. */
    private const SHARED = [PersonKind::Guardian->value => 'child or phone', PersonKind::Staff->value => 'phone'];

    public function __construct(
        private readonly Kept $kept,
        private readonly Merges $merges,
        private readonly SideBySide $sides,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(ClusterPage::class, 'Accounts that may be one person, likeliest first')]
    public function index(Realm $realm): ClusterPage
    {
        return new ClusterPage(
            $this->sides->lines($realm, $this->kept->clusters($realm)),
            $this->kept->waiting($realm),
        );
    }

    #[Answers(WaitingCount::class, 'Look through everyone once more, in the background')]
    public function again(Realm $realm, Finding $finding): WaitingCount
    {
        $waiting = DB::transaction(function () use ($realm, $finding): int {
            foreach ($realm->ids as $school) {
                $finding->all($school);
            }
            FindLookAlikes::dispatch();

            return $this->kept->waiting($realm);
        });

        return new WaitingCount($waiting);
    }

    #[Answers(ClusterDetail::class, 'Two to five accounts side by side, and what merging them would do')]
    #[Takes(PicksWish::class)]
    public function show(Realm $realm, string $accounts, Request $request): ClusterDetail
    {
        $wish = Wishes::of(PicksWish::class, $request);
        $picks = json_decode($wish->picks ?: '{}', true);
        $ids = explode('-', $accounts);
        $planned = $this->plan($realm, $ids, is_array($picks) ? $picks : [], $request);
        $merge = $planned->result;
        $kind = PersonKind::from(Person::query()->findOrFail($merge->staysId)->kind);
        $judged = $this->kept->judge($kind, $this->kept->subjects($realm, $kind, $ids));
        usort($judged, fn(LookAlike $a, LookAlike $b): int => $b->probability <=> $a->probability);

        return new ClusterDetail(
            $kind,
            $this->sides->of($realm, $kind, $ids, $merge->staysId),
            $merge->why,
            $merge->fields,
            array_map(
                fn(LookAlike $p): HeldAgainst => new HeldAgainst(
                    $p->leftId,
                    $p->rightId,
                    $p->probability,
                    $p->caution,
                    array_map(
                        fn(Evidence $e): Evidence => $e->field === 'guardian contact' &&
                        isset(self::SHARED[$kind->value])
                            ? new Evidence(self::SHARED[$kind->value], '', '', $e->level, $e->weight)
                            : $e,
                        $p->evidence,
                    ),
                ),
                $judged,
            ),
            PlanView::of($planned->plan, '', Action::Merge),
        );
    }

    #[Answers(LedgerLine::class, 'Merge accounts, as looked at')]
    #[Takes(MergeWish::class)]
    public function merge(Realm $realm, string $accounts, Request $request): LedgerLine
    {
        $wish = Wishes::of(MergeWish::class, $request);
        $ids = explode('-', $accounts);

        return $this->ledger->holding(['people' => $ids], function () use ($realm, $ids, $request, $wish): LedgerLine {
            $plan = $this->plan($realm, $ids, array_filter($wish->picks, is_string(...)), $request)->plan;
            AsSeen::same($plan, $wish->fingerprint, 'one of the accounts');

            return $this->apply($plan, $realm, $ids, $request, Action::Merge);
        });
    }

    #[
        Answers(
            LedgerLine::class,
            'Note that accounts are of different people: all of them, or one of them and the others',
        ),
    ]
    #[Takes(ApartWish::class)]
    public function apart(Realm $realm, string $accounts, Request $request): LedgerLine
    {
        $wish = Wishes::of(ApartWish::class, $request);
        $ids = explode('-', $accounts);
        $people = $this->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q->whereIn('id', $ids)->whereIn('school_id', $realm->ids)->orderBy('id'),
        );
        if (count($people) !== count($ids) || ($wish->who !== null && !in_array($wish->who, $ids, true))) {
            throw new NotFoundHttpException();
        }
        $before = $this->snapshots->list(
            Records\KnownApart::class,
            fn(Builder $q): Builder => $q->whereIn('left_id', $ids)->whereIn('right_id', $ids),
        );

        return $this->apply(
            ToldApart::plan($people, $wish->who, $before, $this->kit->ids($this->kit->seed())),
            $realm,
            $ids,
            $request,
            Action::Apart,
        );
    }

    /** @param  list<string>  $ids of the accounts: the entry stands at their schools, no other one's */
    private function apply(Plan $plan, Realm $realm, array $ids, Request $request, Action $action): LedgerLine
    {
        $actor = Person::signedIn($request);
        $home = Person::query()->findOrFail($ids[0])->school_id;

        return LedgerLine::of(
            $this->ledger->apply($plan, $home, $actor, $action, also: $realm->ids),
            $actor->fullName(),
        );
    }

    /**
     * @param  list<string>  $ids
     * @param  array<string, string>  $picks
     * @return Planned<Merge>
     */
    private function plan(Realm $realm, array $ids, array $picks, Request $request): Planned
    {
        return $this->merges->plan($realm, $ids, $picks, Coordinators::schoolsOf(Person::signedIn($request)->id));
    }
}
