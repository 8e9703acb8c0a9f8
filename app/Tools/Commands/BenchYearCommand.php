<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Desk\District;
use App\Desk\Http\DeskController;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\LookAlikes\Finding;
use App\LookAlikes\Kept;
use App\Models\Person;
use App\Models\Realm;
use App\Models\School;
use App\Models\SchoolYear;
use App\Roll\Http\Wishes\PeopleWish;
use App\Roll\KeptProblems;
use App\Roll\OnePerson;
use App\Roll\Roll;
use App\Roll\SearchIndex;
use App\Tools\BigSchool;
use App\Tools\DamagedQueries;
use App\Tools\Figures;
use Closure;
use Illuminate\Console\Command;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Roll\AccountProblem;

final class BenchYearCommand extends Command
{
    protected $signature =
        'vantrel:bench-year {--people=50000} {--sections=3000} {--changes=400000} {--seed=2026 : of the school and ' .
        'of what is typed}';

    protected $description = 'Measure Roll, search, Desk and look-alikes of a big school; run by bin/bench year';

    /** Milliseconds within which a page is there. */
    private const GOAL = 150.0;

    /** How many people there are, in words. */
    private string $of = '';

    /** Times each thing is done. */
    private const TIMES = 30;

    /** People looked for by what somebody in a hurry types. */
    private const WANTED = 1000;

    public function handle(
        Roll $roll,
        OnePerson $people,
        KeptProblems $problems,
        SearchIndex $words,
        Finding $finding,
        Kept $kept,
    ): int {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench year.');

            return self::FAILURE;
        }
        $this->call('vantrel:seed', ['which' => 'empty']);
        $school = School::query()->firstOrFail();
        $year = SchoolYear::query()->firstOrFail();
        $seed = (int) $this->option('seed');
        $this->of = number_format((int) $this->option('people')) . ' people';
        $rows = [];
        $once = function (string $what, Closure $work) use (&$rows): void {
            $begin = hrtime(true);
            $work();
            $seconds = (hrtime(true) - $begin) / 1e9;
            Figures::note("$what: $this->of", $seconds, 's');
            $rows[] = [$what, sprintf('%.1f s', $seconds), '', '', ''];
        };
        $once('the school is made', function () use ($school, $year, $seed): void {
            (new BigSchool($school, $year->id, $seed))->fill(
                (int) $this->option('people'),
                (int) $this->option('sections'),
                (int) $this->option('changes'),
            );
        });
        $once('words of everyone', $words->all(...));
        $once('problems of everyone', fn() => $problems->all($school->id));
        $once('everyone held against everyone', function () use ($finding, $school): void {
            $finding->all($school->id);
            $finding->run();
        });
        $memory = memory_get_peak_usage(true) / 1048576;
        Figures::note("most memory, everyone held against everyone: $this->of", $memory, 'MB', 512);
        foreach (['name', 'grade', 'number', 'email'] as $sort) {
            $rows[] = $this->often(
                "Roll by $sort",
                fn() => $this->pages($roll, $school, new PeopleWish(PersonKind::Student, sort: $sort)),
            );
        }
        foreach (AccountProblem::cases() as $problem) {
            $rows[] = $this->often(
                "Roll, $problem->value",
                fn() => $roll->page(Realm::of($school), new PeopleWish(PersonKind::Student, problem: $problem->value)),
            );
        }
        $rows[] = $this->often(
            'Roll, two problems and a grade',
            fn() => $roll->page(
                Realm::of($school),
                new PeopleWish(PersonKind::Student, grade: '07', problem: 'never_signed_in,no_card'),
            ),
        );
        $student = Person::query()->where('kind', 'student')->orderByDesc('id')->firstOrFail();
        $rows[] = $this->often('one person', fn() => $people->detail($student, [$school->id]));
        $rows[] = $this->often('list of look-alikes', fn() => $kept->clusters(Realm::of($school)));
        $request = Request::create('/');
        $reader = Person::query()->where('kind', 'staff')->firstOrFail();
        $request->setUserResolver(fn(): Person => $reader);
        $desk = fn() => app(DeskController::class)->show($school, $request);
        $rows[] = $this->often('Desk', $desk);
        $rows[] = $this->often(
            'Desk of all schools',
            fn() => app(District::class)->desk(Realm::of($school), $reader->id),
        );
        $rows[] = $this->often('how many people and sections', fn() => app(DeskController::class)->counts($school));
        $names = ['Castell', 'Roig'];
        $seen = [];
        $after = $found = [];
        for ($i = 0; $i < self::TIMES; $i++) {
            $this->rename($school, $student->id, $names[$i % 2]);
            $after[] = $this->time($desk);
            $found[] = $this->time($finding->run(...));
            $seen[] = $this->time(fn() => $roll->find(Realm::of($school), $names[$i % 2]));
        }
        $rows[] = $this->row('Desk right after an entry', $after);
        $rows[] = $this->row('look-alikes of whom an entry touched', $found, 300);
        $rows[] = $this->row('found by the new name', $seen);
        $this->table(['what', 'p50', 'p95', 'most', 'times'], [...$rows, ...$this->search($roll, $school, $seed)]);
        $this->line(
            sprintf(
                '%d people, %d sections, %d changes in the ledger, %d pairs of look-alikes; at most %.0f MB; PHP %s, %s',
                DB::table('people')->count(),
                DB::table('sections')->count(),
                DB::table('ledger_changes')->count(),
                $kept->count($school),
                $memory,
                PHP_VERSION,
                DB::selectOne('select version() v')->v,
            ),
        );

        return self::SUCCESS;
    }

    /** The first page and the one after it. */
    private function pages(Roll $roll, School $school, PeopleWish $wish): void
    {
        $first = $roll->page(Realm::of($school), $wish);
        $roll->page(Realm::of($school), new PeopleWish($wish->kind, sort: $wish->sort, after: (string) $first->next));
    }

    private function rename(School $school, string $id, string $family): void
    {
        $plan = new PlanBuilder();
        $person = app(Snapshots::class)->find(Records\Person::class, $id);
        if ($person !== null) {
            $plan->update($person, ['family_name' => $family, 'search_name' => NameKey::of($family)], 'by hand');
        }
        app(Ledger::class)->apply($plan->build('By hand', 'Renames one.'), $school->id, null, Action::Intake);
    }

    /** @return list<list<string>> ours beside what the database has of its own */
    private function search(Roll $roll, School $school, int $seed): array
    {
        $wanted = DB::table('people')
            ->where('kind', 'student')
            ->where('state', 'active')
            ->orderByRaw('md5(concat(id, ?))', [$seed])
            ->limit(self::WANTED)
            ->get(['id', 'given_name', 'family_name', 'number', 'email']);
        $like = fn(string $q): array => DB::table('people')
            ->where('school_id', $school->id)
            ->where('state', 'active')
            ->whereRaw("concat(given_name, ' ', family_name, ' ', ifnull(number, '')) like ?", ["%$q%"])
            ->orderByRaw("kind = 'student' desc, family_name, given_name")
            ->limit(3)
            ->pluck('id')
            ->all();
        $sound = fn(string $q): array => DB::table('people')
            ->where('school_id', $school->id)
            ->where('state', 'active')
            ->whereRaw("concat(given_name, ' ', family_name) sounds like ?", [$q])
            ->orderByRaw("kind = 'student' desc, family_name, given_name")
            ->limit(3)
            ->pluck('id')
            ->all();
        $ours = fn(string $q): array => array_column(array_slice($roll->find(Realm::of($school), $q), 0, 3), 'id');
        $queries = new DamagedQueries($seed);
        $typed = $wanted->map(fn(\stdClass $p): array => [$p, ...$queries->of($p)]);
        $rows = $missed = [];
        foreach (
            ['our search' => $ours, 'LIKE of the database' => $like, 'SOUNDS LIKE of the database' => $sound]
            as $by => $find
        ) {
            $times = [];
            $right = 0;
            foreach ($typed as [$person, $q, $kind]) {
                $ids = [];
                $times[] = $this->time(function () use ($find, $q, &$ids): void {
                    $ids = $find($q);
                });
                // Whoever is called the same is as right: what was typed does not tell them apart.
                $same = DB::table('people')
                    ->whereIn('id', $ids)
                    ->where('given_name', $person->given_name)
                    ->where('family_name', $person->family_name)
                    ->exists();
                $right += $same ? 1 : 0;
                if ($by === 'our search' && !$same) {
                    $missed[$kind] = ($missed[$kind] ?? 0) + 1;
                }
            }
            $row = $this->row($by, $times, $by === 'our search' ? self::GOAL : null);
            $row[0] .= sprintf(': %.1f %% among the first three', (100 * $right) / count($typed));
            $rows[] = $row;
            Figures::note("$by, among the first three: $this->of", (100 * $right) / count($typed), '%', more: true);
        }
        $this->line('Missed by our search, of ' . count($typed) . ': ' . json_encode($missed));

        return $rows;
    }

    /** @return list<string> */
    private function often(string $what, Closure $work): array
    {
        return $this->row($what, array_map(fn(): float => $this->time($work), range(1, self::TIMES)));
    }

    private function time(Closure $work): float
    {
        $begin = hrtime(true);
        $work();

        return (hrtime(true) - $begin) / 1e6;
    }

    /**
     * @param  list<float>  $times milliseconds, of one time or more
     * @return list<string>
     */
    private function row(string $what, array $times, ?float $goal = self::GOAL): array
    {
        sort($times);
        $ms = fn(float $share): float => $times[(int) floor($share * (count($times) - 1))];
        $at = fn(float $share): string => sprintf('%.1f ms', $ms($share));
        Figures::note("$what, p95: $this->of", $ms(0.95), 'ms', $goal);

        return [$what, $at(0.5), $at(0.95), $at(1.0), (string) count($times)];
    }
}
