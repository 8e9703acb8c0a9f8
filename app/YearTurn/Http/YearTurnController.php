<?php

declare(strict_types=1);

namespace App\YearTurn\Http;

use App\Ledger\Ledger;
use App\Ledger\LedgerLine;
use App\Ledger\PlanView;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\YearTurn\Http\Wishes\SeedWish;
use App\YearTurn\Http\Wishes\TurnWish;
use App\YearTurn\Views\YearTurnStart;
use App\YearTurn\YearTurns;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;

/** Rehearsing the year turn as often as wanted, and doing it once. */
final class YearTurnController
{
    public function __construct(
        private readonly YearTurns $turns,
        private readonly Ledger $ledger,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(YearTurnStart::class, 'The year that is, and the one that would follow')]
    public function show(School $school): YearTurnStart
    {
        return $this->turns->start($school);
    }

    #[Answers(PlanView::class, 'Rehearse: the full plan, nothing changed')]
    #[Takes(TurnWish::class, SeedWish::class)]
    public function rehearse(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(TurnWish::class, $request);
        $before = Wishes::of(SeedWish::class, $request)->seed;
        $seed = $before === null ? $this->kit->seed() : $this->kit->fresh($before);

        return PlanView::of($this->turns->plan($school, $wish, $seed), $seed, Action::YearTurn);
    }

    #[Answers(LedgerLine::class, 'Turn the year, as looked at')]
    #[Takes(TurnWish::class, AsSeen::class)]
    public function store(School $school, Request $request): LedgerLine
    {
        $wish = Wishes::of(TurnWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $actor = Person::signedIn($request);
        $sections = array_values(
            array_map(
                strval(...),
                DB::table('sections')->where('school_id', $school->id)->orderBy('id')->pluck('id')->all(),
            ),
        );

        // The school's own row holds back whoever adds people or sections to it just now.
        return $this->ledger->holding(['schools' => [$school->id], 'sections' => $sections], function () use (
            $school,
            $wish,
            $seen,
            $actor,
        ): LedgerLine {
            $plan = $this->turns->plan($school, $wish, $this->kit->fresh($seen->seed));
            $seen->mustBe($plan, 'the students or sections of the year');

            return LedgerLine::of(
                $this->ledger->apply($plan, $school->id, $actor, Action::YearTurn),
                $actor->fullName(),
            );
        });
    }
}
