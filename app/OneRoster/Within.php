<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Models\School;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\OneRoster\Kind;

/** Collections within a record: the students of a class, the classes of a student or term, all of a school. */
final class Within
{
    private const OF_SCHOOL = [
        'classes',
        'courses',
        'enrollments',
        'students',
        'teachers',
        'users',
        'terms',
        'academicSessions',
    ];

    /**
     * What a record must have to be in a collection within another.
     *
     * @return list<array{string, list<string>}>|null fields and the values one of which they must have; null where
     *     there is no such record, or no such collection within it
     */
    public function only(School $school, string $of, string $id, string $collection): ?array
    {
        return match (true) {
            ($of === 'schools' || $of === 'orgs') && in_array($collection, self::OF_SCHOOL, true) => $id === $school->id
                ? []
                : null,
            ($of === 'terms' || $of === 'academicSessions') && $collection === 'classes' => $this->isYear($school, $id)
                ? [['terms.sourcedId', [$id]]]
                : null,
            $of === 'courses' && $collection === 'classes' => $this->isSection($school, $id)
                ? [['course.sourcedId', [$id]]]
                : null,
            $of === 'classes' && $collection === 'enrollments' => $this->isSection($school, $id)
                ? [['class.sourcedId', [$id]]]
                : null,
            $of === 'classes' && in_array($collection, ['students', 'teachers', 'users'], true) => $this->isSection(
                $school,
                $id,
            )
                ? [['sourcedId', $this->ids($school, 'e.person_id', fn(Builder $q) => $q->where('s.id', $id))]]
                : null,
            in_array($of, ['students', 'teachers', 'users'], true) && $collection === 'classes' => $this->isUser(
                $school,
                $id,
            )
                ? [['sourcedId', $this->ids($school, 's.id', fn(Builder $q) => $q->where('e.person_id', $id))]]
                : null,
            default => null,
        };
    }

    private function isSection(School $school, string $id): bool
    {
        return DB::table('sections')->where('id', $id)->where('school_id', $school->id)->exists();
    }

    private function isUser(School $school, string $id): bool
    {
        [$rows, $bound] = Columns::rows(Kind::Users, $school->id, [$id]);

        return DB::select("SELECT p.id FROM $rows", $bound) !== [];
    }

    private function isYear(School $school, string $id): bool
    {
        return DB::table('school_years')->where('id', $id)->where('school_id', $school->id)->exists();
    }

    /**
     * @param  callable(Builder): Builder  $where
     * @return non-empty-list<string> ids of enrollments that stand today; one that is none where there are none
     */
    private function ids(School $school, string $column, callable $where): array
    {
        $ids = $where(
            DB::table('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->where('s.school_id', $school->id)
                ->where('s.state', 'open')
                ->where('e.role', '!=', 'substitute')
                ->where(SchoolDay::inForce('e', SchoolDay::today($school->id))),
        )
            ->distinct()
            ->pluck($column)
            ->map(strval(...))
            ->all();

        return $ids === [] ? [''] : array_values($ids);
    }
}
