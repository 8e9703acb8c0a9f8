<?php

declare(strict_types=1);

namespace App\Desk;

use App\Desk\Jobs\CountCoverage;
use App\Desk\Views\CoverageLine;
use App\Desk\Views\CoverageWeek;
use App\Models\School;
use App\Platform\SchoolDay;
use App\Roll\KeptProblems;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Roll\AccountProblem;
use Vantrel\Core\Values\GradeLevel;

/** How many students have signed in, have a card and have a guardian connected: by grade and section, week by week. */
final class Coverage
{
    /** Weeks that a picture shows: a school year. */
    private const WEEKS = 45;

    /** Seconds for which a count stands before the next one. */
    private const FRESH = 300;

    /** What it is counted by: those who lack it are kept. */
    private const LACKING = [
        'signed_in' => AccountProblem::NeverSignedIn,
        'carded' => AccountProblem::NoCard,
        'connected' => AccountProblem::NotConnected,
    ];

    public function __construct(private readonly KeptProblems $problems) {}

    /**
     * As it was counted last: now, where that has never been this week; else in the background, where it is no longer
     * fresh. In a large school it takes seconds.
     *
     * @return list<CoverageLine> the whole school first, then its grades, then its homerooms and classes
     */
    public function now(School $school): array
    {
        $week = self::monday(SchoolDay::today($school->id));
        $counted = DB::table('coverage_weeks')
            ->where('school_id', $school->id)
            ->where('part', '')
            ->where('week', $week)
            ->value('counted_at');
        if ($counted === null) {
            $this->keep($school);
        } elseif ($counted < now()->subSeconds(self::FRESH)->format('Y-m-d H:i:s')) {
            CountCoverage::dispatch($school->id);
        }
        $now = $this->kept($school, $week);
        $before = $this->kept($school, CarbonImmutable::parse($week)->subWeeks(4)->format('Y-m-d'));
        $lines = [];
        $add = function (string $part, string $name, string $kind) use (&$lines, $now, $before): void {
            $of = $now[$part] ?? null;
            if ($of !== null && $of->students > 0) {
                $lines[] = new CoverageLine(
                    $part,
                    $name,
                    $kind,
                    $of->students,
                    $of->signedIn,
                    $of->carded,
                    $of->connected,
                    $before[$part] ?? null,
                );
            }
        };
        $add('', 'The whole school', 'school');
        foreach (range($school->lowest_grade, $school->highest_grade) as $order) {
            $grade = GradeLevel::of($order);
            $add($grade->code(), ucfirst($grade->label()), 'grade');
        }
        foreach ($this->sections($school)->get(['s.id', 's.name', 's.kind']) as $section) {
            $add($section->id, $section->name, $section->kind);
        }

        return $lines;
    }

    /** @return list<CoverageWeek> of the whole school, or of a grade or section, oldest first */
    public function weeks(School $school, string $part = ''): array
    {
        return array_values(
            DB::table('coverage_weeks')
                ->where('school_id', $school->id)
                ->where('part', $part)
                ->orderByDesc('week')
                ->limit(self::WEEKS)
                ->get()
                ->reverse()
                ->map(self::week(...))
                ->all(),
        );
    }

    /** Keeps how it stands as that of this week: as it was on its last day, once the week is over. */
    public function keep(School $school): void
    {
        $this->problems->today($school->id);
        $week = self::monday(SchoolDay::today($school->id));
        $rows = [];
        foreach ($this->counts($school) as $part => $counts) {
            $rows[] = [
                'school_id' => $school->id,
                'part' => (string) $part,
                'week' => $week,
                'counted_at' => now(),
                ...$counts,
            ];
        }
        foreach (array_chunk($rows, 500) as $some) {
            DB::table('coverage_weeks')->upsert($some, ['school_id', 'part', 'week']);
        }
    }

    /** @return array<array-key, array{students: int, signed_in: int, carded: int, connected: int}> by part */
    private function counts(School $school): array
    {
        $today = SchoolDay::today($school->id);
        $students = fn(): Builder => DB::table('people as p')
            ->where('p.school_id', $school->id)
            ->where('p.kind', 'student')
            ->where('p.state', 'active');
        $seats = fn(): Builder => $this->sections($school)
            ->join('enrollments as e', 'e.section_id', '=', 's.id')
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $today))
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('p.state', 'active');
        $counts = [];
        $count = function (string $what, Builder $query, string $by) use (&$counts): void {
            foreach (
                $query
                    ->reorder()
                    ->groupBy('part')
                    ->selectRaw("$by part, count(*) n")
                    ->get()
                as $row
            ) {
                $counts[(string) $row->part][$what] = (int) $row->n;
            }
        };
        $count('students', $students(), "''");
        $count('students', $students()->whereNotNull('p.grade'), 'p.grade');
        $count('students', $seats(), 's.id');
        foreach (self::LACKING as $what => $problem) {
            $lacking = fn(Builder $q): Builder => $q->join(
                'roll_problems as r',
                fn($on) => $on
                    ->on('r.person_id', '=', 'p.id')
                    ->where('r.school_id', $school->id)
                    ->where('r.problem', $problem->value),
            );
            $count($what, $lacking($students()), "''");
            $count($what, $lacking($students()->whereNotNull('p.grade')), 'p.grade');
            $count($what, $lacking($seats()), 's.id');
        }

        return array_map(
            fn(array $of): array => [
                'students' => $of['students'] ?? 0,
                'signed_in' => ($of['students'] ?? 0) - ($of['signed_in'] ?? 0),
                'carded' => ($of['students'] ?? 0) - ($of['carded'] ?? 0),
                'connected' => ($of['students'] ?? 0) - ($of['connected'] ?? 0),
            ],
            $counts,
        );
    }

    /** @return array<array-key, CoverageWeek> by part, as it is kept of a week */
    private function kept(School $school, string $week): array
    {
        $kept = [];
        foreach (DB::table('coverage_weeks')->where('school_id', $school->id)->where('week', $week)->get() as $w) {
            $kept[(string) $w->part] = self::week($w);
        }

        return $kept;
    }

    private static function week(stdClass $w): CoverageWeek
    {
        return new CoverageWeek(
            $w->week,
            (int) $w->students,
            (int) $w->signed_in,
            (int) $w->carded,
            (int) $w->connected,
        );
    }

    /** Open sections (`s`) of the current year. */
    private function sections(School $school): Builder
    {
        return DB::table('sections as s')
            ->join('school_years as y', 'y.id', '=', 's.school_year_id')
            ->where('s.school_id', $school->id)
            ->where('y.state', 'current')
            ->where('s.state', 'open')
            ->orderByRaw("s.kind = 'homeroom' desc, s.name");
    }

    private static function monday(string $day): string
    {
        return CarbonImmutable::parse($day)->startOfWeek(CarbonImmutable::MONDAY)->format('Y-m-d');
    }
}
