<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use App\Intake\FilesOfList;
use App\Intake\IntakePlans;
use App\Ledger\Ledger;
use App\LookAlikes\Finding;
use App\Models\School;
use App\PrintRoom\CardJob;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\Whom;
use App\Roll\Jobs\SettleRoll;
use App\Roll\KeptProblems;
use App\Roll\SearchIndex;
use App\Tools\BenchList;
use App\Tools\Figures;
use Closure;
use Illuminate\Console\Command;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\Paper;
use Vantrel\Core\Records\Entity;

/** Times the job on made-up people in an empty database, beside the bare work of others on the same file and rows. */
final class BenchCommand extends Command
{
    private const BULK = 500;

    protected $signature =
        'vantrel:bench {--rows=1000 : students in the list} {--known=0 : people known beforehand, half of them ' .
        'students; half of the list are among them} {--growth : only read and plan, at a fifteenth, a fifth, two ' .
        'thirds and all of the rows, and say how the time grows}';

    protected $description = 'Measure a list from file to ledger; run by bin/bench on a database of its own';

    public function handle(
        IntakePlans $planner,
        Ledger $ledger,
        CardPrinter $printer,
        Finding $finding,
        KeptProblems $problems,
        SearchIndex $words,
    ): int {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench.');

            return self::FAILURE;
        }
        $rows = max(10, (int) $this->option('rows'));
        $this->call('vantrel:seed', ['which' => 'empty']);
        $school = School::query()->firstOrFail();
        $known = max(0, (int) $this->option('known'));
        $made = new BenchList();
        $made->people($school->id, $known);
        if ($this->option('growth')) {
            $this->growth($planner, $made, $school, $known, $rows);

            return self::SUCCESS;
        }
        $file = (string) tempnam(sys_get_temp_dir(), 'bench') . '.xlsx';
        $made->list($file, $rows, intdiv($known, 2));
        $this->line(
            sprintf(
                '%d students with two guardians each, %d people known, .xlsx of %.1f MB, PHP %s, %s',
                $rows,
                $known,
                filesize($file) / 1e6,
                PHP_VERSION,
                DB::selectOne('select version() v')->v,
            ),
        );

        $bareRead = $this->time(fn(): int => $this->bareRead($file));
        $plan = null;
        $planned = $this->time(function () use ($planner, $file, $school, &$plan): void {
            $plan = $planner->planFiles($this->asList($file, $school))->plan;
        });
        if ($plan === null) {
            return self::FAILURE;
        }
        $memory = ['planning' => $this->peak()];
        $bareInsert = $this->time(fn() => $this->bareInsert($plan->changes));
        $this->takeBack($plan->changes);
        $entry = null;
        $applied = $this->time(function () use ($ledger, $plan, $school, &$entry): void {
            $entry = $ledger->apply($plan, $school->id, null, Action::Intake);
        });
        $count = count($plan->changes);
        unset($plan);
        $memory['apply'] = $this->peak();
        $settled = $this->time(fn() => (new SettleRoll())->handle($problems, $words));
        $memory['settling'] = $this->peak();
        $again = $this->time(fn() => $planner->planFiles($this->asList($file, $school)));
        $memory['planning'] = max($memory['planning'], $this->peak());
        $lookAlikes = $this->time(function () use ($finding, $school): void {
            $finding->all($school->id);
            $finding->run();
        });
        $memory['look-alikes'] = $this->peak();
        $sections = array_values(
            DB::table('enrollments')
                // Of those the list has made accounts for: the people known before have none to print.
                ->whereIn('person_id', fn(Builder $q): Builder => $q->select('person_id')->from('sign_ins'))
                ->groupBy('section_id')
                ->orderByRaw('count(*) desc')
                ->limit($rows > 2000 ? 2 : 10)
                ->pluck('section_id')
                ->all(),
        );
        $cards = 0;
        $printed = $this->time(function () use ($printer, $school, $sections): void {
            $printer->print(
                $school,
                new CardJob(new Whom($sections), Paper::of(CardLayout::A4, CardOrder::CutStack), shorten: true),
                null,
            );
        });
        $cards = DB::table('badges')->count();
        DB::table('badges')->delete();
        DB::table('sign_ins')->update(['passphrase' => null, 'version' => $entry->seq ?? 0]);
        $memory['printing'] = $this->peak();
        $undone = $entry === null ? 0.0 : $this->time(fn() => $ledger->undo($entry, null));
        $memory['undo'] = $this->peak();
        $of = number_format($rows) . ' rows, ' . number_format($known) . ' people known';
        // The goals are those of one size.
        $goal = fn(float $goal): ?float => [$rows, $known] === [10_000, 50_000] ? $goal : null;
        Figures::note("plan, beside a bare read: $of", $planned / $bareRead, 'ratio', $goal(6));
        Figures::note("plan, all known, beside a bare read: $of", $again / $bareRead, 'ratio', $goal(7));
        Figures::note("apply, beside bare inserts: $of", $applied / $bareInsert, 'ratio', $goal(1.5));
        Figures::note("undo, beside bare inserts: $of", $undone / $bareInsert, 'ratio', $goal(1.5));
        Figures::note("what the Roll keeps, by the worker: $of", $settled, 's');
        Figures::note("look-alikes of everyone: $of", $lookAlikes, 's', $goal(40));
        foreach ($memory as $what => $mb) {
            Figures::note("most memory, $what: $of", $mb, 'MB', 256);
        }
        $this->table(
            ['what', 'seconds', 'yardstick in the same run', 'seconds', 'ratio'],
            [
                [
                    $known > 0 ? "read and plan against $known people" : 'read and plan, nobody known',
                    $this->seconds($planned),
                    'OpenSpout reads the same file',
                    $this->seconds($bareRead),
                    $this->ratio($planned, $bareRead),
                ],
                [
                    'read and plan again, all known',
                    $this->seconds($again),
                    'OpenSpout reads the same file',
                    $this->seconds($bareRead),
                    $this->ratio($again, $bareRead),
                ],
                [
                    "apply ($count records)",
                    $this->seconds($applied),
                    'MariaDB inserts the same rows, ' . self::BULK . ' a statement',
                    $this->seconds($bareInsert),
                    $this->ratio($applied, $bareInsert),
                ],
                [
                    'undo',
                    $this->seconds($undone),
                    'the same',
                    $this->seconds($bareInsert),
                    $this->ratio($undone, $bareInsert),
                ],
                ['what the Roll keeps of them, by the worker', $this->seconds($settled), '', '', ''],
                ['look-alikes of everyone', $this->seconds($lookAlikes), '', '', ''],
                ["$cards login cards as a PDF", $this->seconds($printed), '', '', ''],
            ],
        );
        $this->line(
            'Most memory: ' .
                implode(
                    ', ',
                    array_map(
                        fn(string $k, float $m): string => sprintf('%s %.0f MB', $k, $m),
                        array_keys($memory),
                        $memory,
                    ),
                ),
        );
        unlink($file);

        return self::SUCCESS;
    }

    private function asList(string $file, School $school): FilesOfList
    {
        return new FilesOfList([[$file, 'bench']], $school, 'bench', (string) Str::ulid());
    }

    /** The exponent is the slope of log time over log rows, by least squares. */
    private function growth(IntakePlans $planner, BenchList $made, School $school, int $known, int $most): void
    {
        $table = $points = [];
        foreach ([intdiv($most, 15), intdiv($most, 5), intdiv(2 * $most, 3), $most] as $rows) {
            $file = (string) tempnam(sys_get_temp_dir(), 'bench') . '.xlsx';
            $made->list($file, $rows, intdiv($known, 2));
            $read = $this->time(fn(): int => $this->bareRead($file));
            $plan = $this->time(fn() => $planner->planFiles($this->asList($file, $school)));
            $table[] = [$rows, $this->seconds($plan), $this->seconds($read), $this->ratio($plan, $read)];
            $points[] = [log($rows), log($plan)];
            unlink($file);
        }
        $this->table(
            ["rows, read and planned against $known people", 'seconds', 'OpenSpout reads the same file', 'ratio'],
            $table,
        );
        $x = array_sum(array_column($points, 0)) / count($points);
        $y = array_sum(array_column($points, 1)) / count($points);
        $slope =
            array_sum(array_map(fn(array $p): float => ($p[0] - $x) * ($p[1] - $y), $points)) /
            array_sum(array_map(fn(array $p): float => ($p[0] - $x) ** 2, $points));
        Figures::note('growth of planning with the rows, exponent', $slope, 'ratio', 1.15);
        $this->line(
            sprintf('Growth exponent %.2f. Most memory used: %.0f MB', $slope, memory_get_peak_usage(true) / 1048576),
        );
    }

    private function bareRead(string $file): int
    {
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->open($file);
        $cells = 0;
        foreach ($reader->getSheetIterator() as $sheet) {
            foreach ($sheet?->getRowIterator() ?? [] as $row) {
                $cells += count($row->toArray());
            }
        }
        $reader->close();

        return $cells;
    }

    /**
     * The inserts of a plan and nothing else: no ledger, no images, no versions.
     *
     * @param  list<Change>  $changes
     */
    private function bareInsert(array $changes): void
    {
        DB::transaction(function () use ($changes): void {
            foreach (Entity::cases() as $entity) {
                $alike = [];
                foreach ($changes as $change) {
                    if ($change->entity === $entity && $change->inserts()) {
                        $row = ['id' => $change->id, ...$change->after];
                        ksort($row);
                        $alike[implode(' ', array_keys($row))][] = $row;
                    }
                }
                foreach ($alike as $rows) {
                    foreach (array_chunk($rows, self::BULK) as $chunk) {
                        DB::table($entity->value)->insert($chunk);
                    }
                }
            }
        });
    }

    /** @param  list<Change>  $changes */
    private function takeBack(array $changes): void
    {
        DB::statement('SET FOREIGN_KEY_CHECKS=0');
        foreach (Entity::cases() as $entity) {
            $ids = [];
            foreach ($changes as $change) {
                if ($change->entity === $entity && $change->inserts()) {
                    $ids[] = $change->id;
                }
            }
            foreach (array_chunk($ids, self::BULK) as $chunk) {
                DB::table($entity->value)->whereIn('id', $chunk)->delete();
            }
        }
        DB::statement('SET FOREIGN_KEY_CHECKS=1');
    }

    /** Megabytes at most since this was asked last. */
    private function peak(): float
    {
        $peak = memory_get_peak_usage() / 1048576;
        gc_collect_cycles();
        memory_reset_peak_usage();

        return $peak;
    }

    private function time(Closure $work): float
    {
        $from = hrtime(true);
        $work();

        return (hrtime(true) - $from) / 1e9;
    }

    private function seconds(float $s): string
    {
        return sprintf('%.2f', $s);
    }

    private function ratio(float $a, float $b): string
    {
        return sprintf('%.1f', $a / max(0.001, $b));
    }
}
