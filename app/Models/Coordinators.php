<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Facades\DB;

/** Who coordinates which schools. */
final class Coordinators
{
    /** @return list<string> ids of the schools a person coordinates; none for nobody */
    public static function schoolsOf(?string $personId): array
    {
        return $personId === null
            ? []
            : array_values(
                DB::table('coordinators as c')
                    ->join('people as p', 'p.id', '=', 'c.person_id')
                    ->where('c.person_id', $personId)
                    ->where('c.state', 'active')
                    ->where('p.state', 'active')
                    ->orderBy('c.school_id')
                    ->pluck('c.school_id')
                    ->map(fn(mixed $id): string => (string) $id)
                    ->all(),
            );
    }

    /** @return list<string> those a person coordinates besides one */
    public static function otherSchools(?string $personId, string $schoolId): array
    {
        return array_values(array_diff(self::schoolsOf($personId), [$schoolId]));
    }

    /** As it was when the request came; see {@see StaffStanding}. */
    public static function has(Person $person, string $schoolId): bool
    {
        return $person->state === 'active' && StaffStanding::of($person)->coordinates($schoolId);
    }
}
