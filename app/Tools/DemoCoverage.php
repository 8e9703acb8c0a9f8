<?php

declare(strict_types=1);

namespace App\Tools;

use App\Desk\Coverage;
use App\Models\School;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/** The weeks since August of a demo school, which were never lived through: towards how it stands now. */
final class DemoCoverage
{
    private const WEEKS = 14;

    public static function of(School $school, Coverage $coverage): void
    {
        $coverage->keep($school);
        $weeks = DB::table('coverage_weeks')->where('school_id', $school->id);
        $now = $weeks
            ->clone()
            ->where('week', $weeks->clone()->max('week'))
            ->get();
        $rows = [];
        foreach ($now as $n => $of) {
            for ($ago = 1; $ago < self::WEEKS; $ago++) {
                // Fast at first, then slower; each part at a pace of its own.
                $done = 1 - ($ago / self::WEEKS) ** (2 + ($n % 5) / 4);
                $rows[] = [
                    'school_id' => $of->school_id,
                    'part' => $of->part,
                    'counted_at' => $of->counted_at,
                    'week' => CarbonImmutable::parse($of->week)->subWeeks($ago)->format('Y-m-d'),
                    'students' => $of->students,
                    'signed_in' => (int) round($of->signed_in * $done),
                    'carded' => (int) round($of->carded * min(1, 1.3 * $done)),
                    'connected' => (int) round($of->connected * $done ** 2),
                ];
            }
        }
        foreach (array_chunk($rows, 500) as $some) {
            DB::table('coverage_weeks')->insertOrIgnore($some);
        }
    }
}
