<?php

declare(strict_types=1);

namespace App\YearTurn;

use App\Ledger\Snapshots;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\CoreKit;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Values\GradeLevel;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

/** Loads what a year turn is planned from. */
final class YearTurns
{
    public function __construct(private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    public function start(School $school): YearTurnStart
    {
        $year = $this->current($school);
        $begins = CarbonImmutable::parse($year->begins_on)->addYear();
        $ends = CarbonImmutable::parse($year->ends_on)->addYear();
        $counts = DB::table('people')->where('school_id', $school->id)->where('kind', 'student')->where('state', 'active')->groupBy('grade')->selectRaw('grade, count(*) n')->pluck('n', 'grade');
        $grades = [];
        for ($order = $school->lowest_grade; $order <= $school->highest_grade; $order++) {
            $grade = GradeLevel::of($order);
            $grades[] = new GradeCount($order, $grade->short(), (int) ($counts[$grade->code()] ?? 0));
        }

        return new YearTurnStart($year->name, $begins->format('Y').'-'.$ends->format('y'), $begins->format('Y-m-d'), $ends->format('Y-m-d'), $grades);
    }

    public function plan(School $school, YearTurnRequest $request, string $seed): Plan
    {
        $year = $this->current($school);
        $wish = new YearTurnWish(
            $school->id, $year->id, $request->name, $request->begins, $request->ends, range($school->lowest_grade, $school->highest_grade),
            $request->heldBack, $request->carry, $this->kit->today($school), $this->kit->ids($seed)->instant(),
            DB::table('imports')->where('school_id', $school->id)->where('state', 'applying')->count(),
        );

        return YearTurnPlanner::plan($this->snapshots->forYearTurn($school->id, $year->id), $wish, $this->kit->codeBook($seed), $this->kit->ids($seed));
    }

    private function current(School $school): SchoolYear
    {
        return SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->firstOrFail();
    }
}
