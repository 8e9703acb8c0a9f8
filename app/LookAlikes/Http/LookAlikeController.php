<?php

declare(strict_types=1);

namespace App\LookAlikes\Http;

use App\Ledger\Ledger;
use App\Ledger\LedgerLine;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\LookAlikes\Finding;
use App\LookAlikes\Http\Wishes\MergeWish;
use App\LookAlikes\Http\Wishes\PicksWish;
use App\LookAlikes\Jobs\FindLookAlikes;
use App\LookAlikes\Pairs;
use App\LookAlikes\Views\PairDetail;
use App\LookAlikes\Views\PairField;
use App\LookAlikes\Views\PairLine;
use App\LookAlikes\Views\PairPage;
use App\LookAlikes\Views\PairSide;
use App\LookAlikes\Views\WaitingCount;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\Merge;
use Vantrel\Core\LookAlikes\MergedField;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\LookAlikes\ToldApart;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Records;
use Vantrel\Core\Values\GradeLevel;

/** Accounts that may be one person: listed, compared, merged, or told apart. */
final class LookAlikeController
{
    public function __construct(
        private readonly Pairs $pairs,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PairPage::class, 'Pairs that may be one person, likeliest first')]
    public function index(School $school): PairPage
    {
        $pairs = $this->pairs->of($school);
        $ids = array_merge(...array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId], $pairs), ...[[]]);
        /** @var Collection<string, Person> $people */
        $people = Person::query()->whereIn('id', $ids)->get()->keyBy('id');
        $sections = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('e.person_id', $ids)
            ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
            ->where('s.state', 'open')
            ->groupBy('e.person_id')
            ->selectRaw("e.person_id, group_concat(s.name order by s.kind, s.name separator ', ') n")
            ->pluck('n', 'person_id');
        $detail = fn(Person $p): string => implode(
            ', ',
            array_filter([
                GradeLevel::read((string) $p->grade)?->label(),
                $sections[$p->id] ?? null,
                $p->number === null ? null : "number $p->number",
            ]),
        );
        $lines = [];
        foreach ($pairs as $pair) {
            $left = $people->get($pair->leftId);
            $right = $people->get($pair->rightId);
            if ($left !== null && $right !== null) {
                $lines[] = new PairLine(
                    $left->id,
                    $right->id,
                    $left->fullName(),
                    $right->fullName(),
                    $detail($left),
                    $detail($right),
                    $pair->probability,
                    $pair->caution,
                    $pair->accounts,
                );
            }
        }

        return new PairPage($lines, $this->pairs->waiting($school));
    }

    #[Answers(WaitingCount::class, 'Look through everyone once more, in the background')]
    public function again(School $school, Finding $finding): WaitingCount
    {
        $waiting = DB::transaction(function () use ($school, $finding): int {
            $finding->all($school);
            FindLookAlikes::dispatch();

            return $this->pairs->waiting($school);
        });

        return new WaitingCount($waiting);
    }

    #[Answers(PairDetail::class, 'Two accounts side by side, and what merging them would do')]
    #[Takes(PicksWish::class)]
    public function show(School $school, string $left, string $right, Request $request): PairDetail
    {
        $wish = Wishes::of(PicksWish::class, $request);
        $a = $this->pairs->subject($left);
        $b = $this->pairs->subject($right);
        if ($a === null || $b === null || $a->schoolId !== $school->id || $b->schoolId !== $school->id) {
            throw new NotFoundHttpException();
        }
        $pair = $this->pairs->judge($a, $b);
        $picks = json_decode($wish->picks ?: '{}', true);
        $planned = $this->plan($school, $left, $right, is_array($picks) ? $picks : []);
        $merge = $planned->result;
        $keepsLeft = $merge->staysId === $left;

        return new PairDetail(
            $this->side($left, $keepsLeft),
            $this->side($right, !$keepsLeft),
            $pair->probability,
            $pair->caution,
            $pair->evidence,
            array_map(
                fn(MergedField $f): PairField => new PairField(
                    $f->column,
                    $f->label,
                    $keepsLeft ? $f->survivor : $f->other,
                    $keepsLeft ? $f->other : $f->survivor,
                    $f->stays,
                ),
                $merge->fields,
            ),
            PlanView::of($planned->plan, '', Action::Merge),
        );
    }

    #[Answers(LedgerLine::class, 'Merge two accounts, as looked at')]
    #[Takes(MergeWish::class)]
    public function merge(School $school, string $left, string $right, Request $request): LedgerLine
    {
        $wish = Wishes::of(MergeWish::class, $request);
        /** @var array<string, string> $picks */
        $picks = array_filter($wish->picks, is_string(...));

        return $this->ledger->holding(['people' => [$left, $right]], function () use (
            $school,
            $left,
            $right,
            $picks,
            $request,
            $wish,
        ): LedgerLine {
            $plan = $this->plan($school, $left, $right, $picks)->plan;
            AsSeen::same($plan, $wish->fingerprint, 'one of the two accounts');

            return $this->apply($plan, $school, $request, Action::Merge);
        });
    }

    #[Answers(LedgerLine::class, 'Note that two accounts are two people')]
    public function apart(School $school, string $left, string $right, Request $request): LedgerLine
    {
        $a = $this->snapshots->find(Records\Person::class, $left);
        $b = $this->snapshots->find(Records\Person::class, $right);
        if ($a === null || $b === null || $a->schoolId() !== $school->id || $b->schoolId() !== $school->id) {
            throw new NotFoundHttpException();
        }

        $before = $this->snapshots->list(
            Records\KnownApart::class,
            fn(Builder $q): Builder => $q->whereIn('left_id', [$left, $right])->whereIn('right_id', [$left, $right]),
        );

        return $this->apply(
            ToldApart::plan($a, $b, $before[0] ?? null, $this->kit->ids($this->kit->seed())),
            $school,
            $request,
            Action::Apart,
        );
    }

    private function apply(Plan $plan, School $school, Request $request, Action $action): LedgerLine
    {
        $actor = Person::signedIn($request);

        return LedgerLine::of($this->ledger->apply($plan, $school->id, $actor, $action), $actor->fullName());
    }

    /**
     * @param  array<string, string>  $picks
     * @return Planned<Merge>
     */
    private function plan(School $school, string $left, string $right, array $picks): Planned
    {
        $snapshot = $this->snapshots->forMerge($left, $right);
        foreach ([$left, $right] as $id) {
            if ($snapshot->find(Records\Person::class, $id)?->schoolId() !== $school->id) {
                throw new NotFoundHttpException();
            }
        }

        return MergePlanner::plan($snapshot, $left, $right, $picks);
    }

    private function side(string $id, bool $survives): PairSide
    {
        $person = Person::query()->findOrFail($id);
        $signIns = DB::table('sign_ins')
            ->where('person_id', $id)
            ->orderBy('user_name')
            ->get(['user_name', 'last_signed_in_at']);
        $last = $signIns->max('last_signed_in_at');

        return new PairSide(
            $id,
            $person->fullName(),
            $survives,
            array_values(
                DB::table('enrollments as e')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->where('e.person_id', $id)
                    ->where(SchoolDay::inForce('e', SchoolDay::today($person->school_id)))
                    ->orderBy('s.kind')
                    ->orderBy('s.name')
                    ->pluck('s.name')
                    ->all(),
            ),
            array_values($signIns->pluck('user_name')->all()),
            array_values(
                DB::table('guardianships as g')
                    ->join('people as p', 'p.id', '=', 'g.guardian_id')
                    ->where('g.student_id', $id)
                    ->where('g.state', '!=', 'ended')
                    ->selectRaw("TRIM(CONCAT(p.given_name, ' ', p.family_name)) n")
                    ->orderBy('n')
                    ->pluck('n')
                    ->all(),
            ),
            Instant::isoOrNull(is_string($last) ? $last : null),
        );
    }
}
