<?php

declare(strict_types=1);

namespace App\YearTurn;

use App\Ledger\Snapshots;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\YearTurn\Http\Wishes\TurnWish;
use App\YearTurn\Views\GradeCount;
use App\YearTurn\Views\YearTurnStart;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Settings\SchoolYears;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

/** Loads what a year turn is planned from. */
final class YearTurns
{
    public function __construct(private readonly Snapshots $snapshots, private readonly PlannerKit $kit) {}

    public function start(School $school): YearTurnStart
    {
        $year = $this->current($school);
        $planned = SchoolYear::query()
            ->where('school_id', $school->id)
            ->where('state', 'planned')
            ->orderBy('begins_on')
            ->first();
        [$name, $begins, $ends] =
            $planned === null
                ? SchoolYears::following($year->begins_on, $year->ends_on)
                : [$planned->name, $planned->begins_on, $planned->ends_on];
        $counts = DB::table('people')
            ->where('school_id', $school->id)
            ->where('kind', 'student')
            ->where('state', 'active')
            ->groupBy('grade')
            ->selectRaw('grade, count(*) n')
            ->pluck('n', 'grade');
        $grades = [];
        for ($order = $school->lowest_grade; $order <= $school->highest_grade; $order++) {
            $grade = GradeLevel::of($order);
            $grades[] = new GradeCount(
                $order,
                $grade->short(),
                (int) ($counts[$grade->code()] ?? 0),
                YearTurnPlanner::after($grade, $school->highest_grade)?->short(),
            );
        }

        return new YearTurnStart($year->name, $name, $begins, Span::last($ends), $grades);
    }

    public function plan(School $school, TurnWish $request, string $seed): Plan
    {
        $year = $this->current($school);
        $made = $this->kit->ids($seed)->instant();
        $wish = new YearTurnWish(
            $school->id,
            $year->id,
            $request->name,
            $request->begins,
            Span::after($request->last),
            range($school->lowest_grade, $school->highest_grade),
            $request->heldBack,
            $request->carry,
            SchoolDay::at($school->id, $made),
            $made,
            DB::table('imports')->where('school_id', $school->id)->where('state', 'applying')->count(),
        );

        return YearTurnPlanner::plan(
            $this->snapshots->forYearTurn($school->id, $year->id),
            $wish,
            $this->kit->codeBook($seed),
            $this->kit->ids($seed),
        );
    }

    private function current(School $school): SchoolYear
    {
        return SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->firstOrFail();
    }
}
