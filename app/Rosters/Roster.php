<?php

declare(strict_types=1);

namespace App\Rosters;

use App\Models\School;
use App\Models\Section;
use App\Platform\SchoolDay;
use Generator;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Values\GradeLevel;

/** Students as a sheet that can be edited and brought in again: the account key at its left says who each row is. */
final class Roster
{
    private const GUARDIANS = 4;

    private const CHUNK = 500;

    /** @return list<string> */
    public static function headings(bool $addresses): array
    {
        $headings = [
            'Account key (do not change)',
            'Student number',
            'Given name',
            'Family name',
            'Grade',
            'User name',
            'Homeroom',
            'Section',
        ];
        if ($addresses) {
            array_push($headings, 'Birth date', 'Student e-mail');
            for ($n = 1; $n <= self::GUARDIANS; $n++) {
                array_push(
                    $headings,
                    "Guardian $n",
                    "Guardian $n e-mail",
                    "Guardian $n phone",
                    "Guardian $n relationship",
                );
            }
        }

        return $headings;
    }

    /**
     * @param  string  $asOf the day, YYYY-MM-DD: whoever was in the section on it
     * @param  bool  $addresses whether personal addresses go out, which is for coordinators
     * @return Generator<int, list<string>>
     */
    public static function ofSection(Section $section, string $asOf, bool $addresses): Generator
    {
        $ids = DB::table('enrollments as e')
            ->where('section_id', $section->id)
            ->where('role', 'student')
            ->where(SchoolDay::inForce('e', $asOf))
            ->distinct()
            ->pluck('person_id')
            ->all();

        yield from self::rows(
            array_values($ids),
            $addresses,
            $section,
            $section->archived_on !== null && $asOf >= $section->archived_on ? (string) $section->archived_on : $asOf,
        );
    }

    /** @return Generator<int, list<string>> every active student of the school */
    public static function ofSchool(School $school, string $asOf): Generator
    {
        $ids = DB::table('people')
            ->where('school_id', $school->id)
            ->where('kind', 'student')
            ->where('state', 'active')
            ->orderBy('family_name')
            ->orderBy('given_name')
            ->orderBy('id')
            ->pluck('id')
            ->all();

        yield from self::rows(array_values($ids), true, null, $asOf);
    }

    /**
     * @param  list<string>  $ids
     * @return Generator<int, list<string>>
     */
    private static function rows(array $ids, bool $addresses, ?Section $only, string $asOf): Generator
    {
        $people = [];
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            foreach (
                DB::table('people')
                    ->whereIn('id', $chunk)
                    ->orderBy('family_name')
                    ->orderBy('given_name')
                    ->orderBy('id')
                    ->get()
                as $person
            ) {
                $people[] = $person;
            }
        }
        foreach (array_chunk($people, self::CHUNK) as $chunk) {
            $chunkIds = array_map(fn(object $p): string => $p->id, $chunk);
            $userNames = DB::table('sign_ins')
                ->whereIn('person_id', $chunkIds)
                ->orderByDesc('id')
                ->pluck('user_name', 'person_id');
            $sections = [];
            foreach (
                DB::table('enrollments as e')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->whereIn('e.person_id', $chunkIds)
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', $asOf))
                    ->when(
                        $only !== null,
                        fn(Builder $q) => $q->where('s.id', $only?->id),
                        fn(Builder $q) => $q->where('s.state', 'open'),
                    )
                    ->orderBy('s.name')
                    ->get(['e.person_id', 's.name', 's.kind'])
                as $row
            ) {
                $sections[$row->person_id][$row->kind][] = $row->name;
            }
            $guardians = $addresses ? self::guardians($chunkIds) : [];
            foreach ($chunk as $p) {
                $cells = [
                    $p->id,
                    (string) $p->number,
                    $p->given_name,
                    $p->family_name,
                    GradeLevel::read((string) $p->grade)?->short() ?? '',
                    (string) ($userNames[$p->id] ?? ''),
                    implode('; ', array_unique($sections[$p->id]['homeroom'] ?? [])),
                    implode('; ', array_unique($sections[$p->id]['class'] ?? [])),
                ];
                if ($addresses) {
                    array_push($cells, (string) $p->birth_date, (string) $p->email);
                    foreach (array_slice($guardians[$p->id] ?? [], 0, self::GUARDIANS) as $g) {
                        array_push(
                            $cells,
                            trim("$g->given_name $g->family_name"),
                            (string) $g->email,
                            (string) $g->phone,
                            (string) $g->relationship,
                        );
                    }
                }
                yield array_pad($cells, count(self::headings($addresses)), '');
            }
        }
    }

    /**
     * @param  list<string>  $students
     * @return array<string, list<object{
     *     student_id: string, given_name: string, family_name: string, email: ?string, phone: ?string,
     *     relationship: ?string,
     * }>>
     */
    private static function guardians(array $students): array
    {
        $found = [];
        foreach (
            DB::table('guardianships as g')
                ->join('people as p', 'p.id', '=', 'g.guardian_id')
                ->whereIn('g.student_id', $students)
                ->where('g.state', '!=', 'ended')
                ->where('p.state', '!=', 'merged')
                ->orderBy('g.id')
                ->get(['g.student_id', 'p.given_name', 'p.family_name', 'p.email', 'p.phone', 'g.relationship'])
            as $row
        ) {
            /**
             * @var object{
             *     student_id: string, given_name: string, family_name: string, email: ?string, phone: ?string,
             *     relationship: ?string,
             * } $row
             */
            $found[$row->student_id][] = $row;
        }

        return $found;
    }
}
