<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Matching\Estimation;
use Vantrel\Core\Matching\Weights;

/** The weights a school matches with: the published ones, or its own where somebody has accepted them. */
final class SchoolWeights
{
    public function of(string $schoolId): Weights
    {
        $m = DB::table('match_weights')->where('school_id', $schoolId)->value('m');

        return $m === null ? Weights::published() : Weights::estimated((array) json_decode((string) $m, true));
    }

    public function areOwn(string $schoolId): bool
    {
        return DB::table('match_weights')->where('school_id', $schoolId)->exists();
    }

    public function accept(string $schoolId, Estimation $estimation, ?Person $by): void
    {
        DB::table('match_weights')->upsert(
            [
                [
                    'school_id' => $schoolId,
                    'm' => json_encode($estimation->m, JSON_THROW_ON_ERROR),
                    'pairs' => (int) round($estimation->matches),
                    'made_by' => $by?->id,
                    'made_at' => now(),
                ],
            ],
            ['school_id'],
            ['m', 'pairs', 'made_by', 'made_at'],
        );
    }

    public function forget(string $schoolId): void
    {
        DB::table('match_weights')->where('school_id', $schoolId)->delete();
    }
}
