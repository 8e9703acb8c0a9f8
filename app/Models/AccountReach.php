<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\Hold;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianshipState;

/** Which schools somebody's account opens something of, and whether somebody else may act on the whole of it. */
final class AccountReach
{
    /**
     * Where they are homed, what they coordinate, what they teach today, and whose child is theirs, asked for or
     * connected.
     *
     * @return list<string> ids of schools
     */
    public static function of(string $personId): array
    {
        $home = (string) DB::table('people')->where('id', $personId)->value('school_id');

        return array_values(
            DB::table('people')
                ->where('id', $personId)
                ->select('school_id')
                ->union(
                    DB::table('coordinators')
                        ->where('person_id', $personId)
                        ->where('state', 'active')
                        ->select('school_id'),
                )
                ->union(
                    DB::table('enrollments as e')
                        ->join('sections as s', 's.id', '=', 'e.section_id')
                        ->where('e.person_id', $personId)
                        ->where('e.role', '!=', 'student')
                        ->where(
                            fn(Builder $q): Builder => $q
                                ->whereNull('e.ends_on')
                                ->orWhere('e.ends_on', '>', SchoolDay::today($home)),
                        )
                        ->select('s.school_id'),
                )
                ->union(
                    DB::table('guardianships as g')
                        ->join('people as c', 'c.id', '=', 'g.student_id')
                        ->where('g.guardian_id', $personId)
                        ->whereNotIn('g.state', [GuardianshipState::Ended, GuardianshipState::Refused])
                        ->select('c.school_id'),
                )
                ->pluck('school_id')
                ->map(fn(mixed $id): string => (string) $id)
                ->all(),
        );
    }

    public static function isHeldBy(Person $actor, string $personId): bool
    {
        return Hold::has(Coordinators::schoolsOf($actor->id), self::of($personId));
    }

    /** @throws Refusal where it opens more than the schools of whoever acts */
    public static function mustBeHeldBy(Person $actor, Person $person, string $field = ''): void
    {
        Hold::must(Coordinators::schoolsOf($actor->id), self::of($person->id), $person->fullName(), $field);
    }

    /**
     * Ending takes less: whoever coordinates a school that the actor does not is not shut out by them.
     *
     * @throws Refusal
     */
    public static function mustNotCoordinateBeyond(Person $actor, Person $person): void
    {
        Hold::must(Coordinators::schoolsOf($actor->id), Coordinators::schoolsOf($person->id), $person->fullName());
    }
}
