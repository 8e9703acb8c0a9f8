<?php

declare(strict_types=1);

namespace App\Rosters;

use App\Models\School;
use App\Models\SchoolYear;
use App\OneRoster\Source;
use App\Platform\CsvLine;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use RuntimeException;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;
use Vantrel\Core\OneRoster\Tables;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Table\TextMark;
use ZipArchive;

/** A school as a OneRoster 1.2 CSV bulk export (1EdTech, Rostering CSV Binding 1.2): nine tables in a zip. */
final class OneRosterExport
{
    // prettier-ignore
    private const TABLES = [
        'academicSessions', 'categories', 'classes', 'classResources', 'courses', 'courseResources', 'demographics',
        'enrollments', 'lineItemLearningObjectiveIds', 'lineItems', 'lineItemScoreScales', 'orgs', 'resources',
        'resultLearningObjectiveIds', 'results', 'resultScoreScales', 'roles', 'scoreScales', 'userProfiles',
        'userResources', 'users',
    ];

    private const ROLES = ['student' => 'student', 'guardian' => 'guardian', 'staff' => 'teacher'];

    public static function write(School $school, string $path): void
    {
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->first();
        $tables = [
            'orgs' => [Tables::HEADERS['orgs'], [[$school->id, '', '', $school->name, 'school', $school->code, '']]],
            'academicSessions' => [
                Tables::HEADERS['academicSessions'],
                $year === null
                    ? []
                    : [
                        [
                            $year->id,
                            '',
                            '',
                            $year->name,
                            'schoolYear',
                            $year->begins_on,
                            $year->ends_on,
                            '',
                            substr($year->ends_on, 0, 4),
                        ],
                    ],
            ],
            ...self::sections($school, $year),
            ...self::people($school),
        ];
        self::pack($path, $tables, 'bulk');
    }

    /**
     * What has changed since an instant, with what is to be deleted: a delta export of the same tables.
     *
     * @param  string  $since YYYY-MM-DD or an instant, in UTC
     */
    public static function writeChanges(School $school, string $since, string $path): void
    {
        $source = new Source($school, [Scope::Roster, Scope::Demographics], '', 'export');
        $records = [];
        foreach (Kind::cases() as $kind) {
            $query = Query::read(['filter' => "dateLastModified>='$since'"], $kind);
            $all = new Query(PHP_INT_MAX, 0, null, false, $query->filter, []);
            [$records[$kind->value]] = $source->page($kind, [], $all);
        }
        $tables = [];
        foreach (Tables::of($records) as $name => $rows) {
            $tables[$name] = [$rows[0], array_slice($rows, 1)];
        }
        self::pack($path, $tables, 'delta');
    }

    /**
     * @param  array<string, array{list<string>, list<list<string>>}>  $tables
     * @param  string  $how bulk or delta
     */
    private static function pack(string $path, array $tables, string $how): void
    {
        $zip = new ZipArchive();
        if ($zip->open($path, ZipArchive::CREATE | ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException("$path cannot be written.");
        }
        $manifest = [['propertyName', 'value'], ['manifest.version', '1.0'], ['oneroster.version', '1.2']];
        foreach (self::TABLES as $table) {
            $manifest[] = ["file.$table", isset($tables[$table]) ? $how : 'absent'];
        }
        $zip->addFromString(
            'manifest.csv',
            self::csv([...$manifest, ['source.systemName', 'Vantrel'], ['source.systemCode', '']]),
        );
        foreach ($tables as $name => [$header, $rows]) {
            $zip->addFromString("$name.csv", self::csv([$header, ...$rows]));
        }
        $zip->close();
    }

    /** @return array<string, array{list<string>, list<list<string>>}> */
    private static function sections(School $school, ?SchoolYear $year): array
    {
        $classes = $courses = $enrollments = [];
        foreach (
            DB::table('sections')
                ->where('school_id', $school->id)
                ->where('school_year_id', $year?->id)
                ->where('state', 'open')
                ->orderBy('name')
                ->get()
            as $s
        ) {
            $courses[] = [$s->id, '', '', (string) $year?->id, $s->name, '', (string) $s->grade, $school->id, '', ''];
            $classes[] = [
                $s->id,
                '',
                '',
                $s->name,
                (string) $s->grade,
                $s->id,
                '',
                $s->kind === 'homeroom' ? 'homeroom' : 'scheduled',
                '',
                $school->id,
                (string) $year?->id,
                '',
                '',
                '',
            ];
        }
        foreach (
            DB::table('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->where('s.school_id', $school->id)
                ->where('s.school_year_id', $year?->id)
                ->where('s.state', 'open')
                // OneRoster has no role for somebody who stands in for some days.
                ->whereNotIn('e.role', EnrollmentRole::values(fn(EnrollmentRole $r): bool => $r->standsIn()))
                ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
                ->orderBy('e.id')
                ->get(['e.id', 'e.section_id', 'e.person_id', 'e.role', 'e.begins_on'])
            as $e
        ) {
            $enrollments[] = [
                $e->id,
                '',
                '',
                $e->section_id,
                $school->id,
                $e->person_id,
                match ($e->role) {
                    'student' => 'student',
                    'assistant' => 'proctor',
                    default => 'teacher',
                },
                $e->role === 'lead' ? 'true' : 'false',
                $e->begins_on,
                '',
            ];
        }

        return [
            'courses' => [Tables::HEADERS['courses'], $courses],
            'classes' => [Tables::HEADERS['classes'], $classes],
            'enrollments' => [Tables::HEADERS['enrollments'], $enrollments],
        ];
    }

    /** @return array<string, array{list<string>, list<list<string>>}> */
    private static function people(School $school): array
    {
        $agents = [];
        foreach (
            DB::table('guardianships as g')
                ->join('people as s', 's.id', '=', 'g.student_id')
                ->where('s.school_id', $school->id)
                ->whereNotIn('g.state', ['ended', 'refused'])
                ->whereNull('g.restriction')
                ->orderBy('g.id')
                ->get(['g.student_id', 'g.guardian_id'])
            as $g
        ) {
            $agents[$g->student_id][] = $g->guardian_id;
        }
        $isAgent = array_fill_keys(array_merge([], ...array_values($agents)), true);
        $users = $roles = $demographics = [];
        $people = DB::table('people as p')
            ->leftJoin('sign_ins as i', 'i.person_id', '=', 'p.id')
            ->where('p.state', 'active')
            ->where(fn($q) => $q->where('p.school_id', $school->id)->orWhere('p.kind', 'guardian'))
            ->orderBy('p.id')
            ->select([
                'p.id',
                'p.kind',
                'p.given_name',
                'p.family_name',
                'p.number',
                'p.email',
                'p.phone',
                'p.grade',
                'p.birth_date',
                'i.user_name',
            ])
            ->cursor();
        $seen = [];
        foreach ($people as $p) {
            if (isset($seen[$p->id]) || ($p->kind === 'guardian' && !isset($isAgent[$p->id]))) {
                continue;
            }
            $seen[$p->id] = true;
            $users[] = [
                $p->id,
                '',
                '',
                'true',
                (string) $p->user_name,
                '',
                $p->given_name,
                $p->family_name,
                '',
                (string) $p->number,
                (string) $p->email,
                (string) $p->phone,
                '',
                implode(',', $agents[$p->id] ?? []),
                (string) $p->grade,
                '',
                '',
                '',
                '',
                '',
                $school->id,
                '',
            ];
            $roles[] = ["$p->id-role", '', '', $p->id, 'primary', self::ROLES[$p->kind], '', '', $school->id, ''];
            if ($p->birth_date !== null) {
                $demographics[] = [$p->id, '', '', $p->birth_date, ...array_fill(0, 11, '')];
            }
        }

        return [
            'users' => [Tables::HEADERS['users'], $users],
            'roles' => [Tables::HEADERS['roles'], $roles],
            'demographics' => [Tables::HEADERS['demographics'], $demographics],
        ];
    }

    /** @param  list<list<string>>  $rows */
    private static function csv(array $rows): string
    {
        $lines = '';
        foreach ($rows as $row) {
            // A number with its plus sign is a number; anything else that could run is marked as text.
            $lines .= CsvLine::of(
                array_map(
                    fn(string $cell): string => preg_match('/^[+-]\d+$/D', $cell) === 1 ? $cell : TextMark::on($cell),
                    $row,
                ),
            );
        }

        return $lines;
    }
}
