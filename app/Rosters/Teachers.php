<?php

declare(strict_types=1);

namespace App\Rosters;

use App\Platform\SchoolDay;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\EnrollmentRole;

/** Who teaches a section today, as its students and their guardians are told. */
final class Teachers
{
    /**
     * @param  Collection<int, mixed>  $sectionIds
     * @return array<string, list<string>> section's id to names, the lead first
     */
    public static function of(Collection $sectionIds, string $schoolId): array
    {
        $names = [];
        $found = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->whereIn('e.section_id', $sectionIds)
            ->whereIn('e.role', EnrollmentRole::values(fn(EnrollmentRole $r): bool => $r->isTeacher()))
            ->where(SchoolDay::inForce('e', SchoolDay::today($schoolId)))
            ->orderBy('e.role')
            ->orderBy('p.family_name')
            ->get(['e.section_id', 'p.given_name', 'p.family_name']);
        foreach ($found as $teacher) {
            $names[(string) $teacher->section_id][] = trim("$teacher->given_name $teacher->family_name");
        }

        return $names;
    }
}
