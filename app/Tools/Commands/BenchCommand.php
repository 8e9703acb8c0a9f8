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
use Closure;
use Illuminate\Console\Command;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
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
        'students; half of the list are among them} {--growth : only read and plan, at 1,000 3,000 10,000 and ' .
        '15,000 rows, and say how the time grows}';

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
        $this->people($school->id, $known);
        if ($this->option('growth')) {
            $this->growth($planner, $school, $known);

            return self::SUCCESS;
        }
        $file = (string) tempnam(sys_get_temp_dir(), 'bench') . '.xlsx';
        $this->list($file, $rows, intdiv($known, 2));
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
        $bareInsert = $this->time(fn() => $this->bareInsert($plan->changes));
        $this->takeBack($plan->changes);
        $entry = null;
        $applied = $this->time(function () use ($ledger, $plan, $school, &$entry): void {
            $entry = $ledger->apply($plan, $school->id, null, Action::Intake);
        });
        $settled = $this->time(fn() => (new SettleRoll())->handle($problems, $words));
        $again = $this->time(fn() => $planner->planFiles($this->asList($file, $school)));
        $lookAlikes = $this->time(function () use ($finding, $school): void {
            $finding->all($school->id);
            $finding->run();
        });
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
        $undone = $entry === null ? 0.0 : $this->time(fn() => $ledger->undo($entry, null));
        $count = count($plan->changes);
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
        $this->line(sprintf('Most memory used: %.0f MB', memory_get_peak_usage(true) / 1048576));
        unlink($file);

        return self::SUCCESS;
    }

    /** People made up beforehand: students of the list's kind, and as many guardians. */
    private function people(string $schoolId, int $n): void
    {
        $people = $links = [];
        $flush = function () use (&$people, &$links): void {
            DB::table('people')->insert($people);
            DB::table('guardianships')->insert($links);
            $people = $links = [];
        };
        for ($i = 0; $i < intdiv($n, 2); $i++) {
            $student = $this->student($i);
            $common = [
                'version' => 0,
                'school_id' => $schoolId,
                'state' => 'active',
                'merged_into' => null,
                'phone' => null,
            ];
            $people[] = [
                ...$common,
                'id' => ($a = (string) Str::ulid()),
                'kind' => 'student',
                'given_name' => $student[1],
                'family_name' => $student[2],
                'search_name' => strtolower("$student[1] $student[2]"),
                'birth_date' => $student[3],
                'number' => $student[0],
                'grade' => sprintf('%02d', $student[4]),
                'email' => null,
            ];
            $people[] = [
                ...$common,
                'id' => ($b = (string) Str::ulid()),
                'kind' => 'guardian',
                'given_name' => explode(' ', $student[6])[0],
                'family_name' => $student[2],
                'search_name' => strtolower($student[6]),
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                'email' => $student[7],
            ];
            $links[] = [
                'id' => (string) Str::ulid(),
                'version' => 0,
                'student_id' => $a,
                'guardian_id' => $b,
                'state' => 'listed',
            ];
            if (count($people) >= 1000) {
                $flush();
            }
        }
        $flush();
    }

    /**
     * The student of a number: always the same for the same one, whoever asks.
     *
     * @return array{string, string, string, string, int, string, string, string, string, string}
     */
    private function student(int $i): array
    {
        mt_srand($i + 1);
        [$given, $family] = [$this->name(), $this->name()];
        $grade = ($i % 12) + 1;

        return [
            sprintf('%07d', 1_000_000 + $i),
            $given,
            $family,
            sprintf('%04d-%02d-%02d', 2020 - $grade, mt_rand(1, 12), mt_rand(1, 28)),
            $grade,
            "$grade " . ['Heron', 'Plover', 'Curlew', 'Tern'][intdiv($i, 12) % 4],
            $this->name() . " $family",
            "a$i@shoremail.example",
            $this->name() . " $family",
            "b$i@shoremail.example",
        ];
    }

    /** @param  int  $known students known: half of the rows are among them, the other half come after */
    private function list(string $file, int $rows, int $known): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($file);
        $writer->addRow(
            WriterEntityFactory::createRowFromArray([
                'Student no',
                'Given name',
                'Family name',
                'Date of birth',
                'Grade',
                'Homeroom',
                'Guardian 1',
                'Guardian 1 e-mail',
                'Guardian 2',
                'Guardian 2 e-mail',
            ]),
        );
        for ($i = 0; $i < $rows; $i++) {
            $student = $this->student($known === 0 || $i % 2 === 1 ? $known + $i : ($i * 7) % $known);
            $writer->addRow(WriterEntityFactory::createRowFromArray(array_map(strval(...), $student)));
        }
        $writer->close();
    }

    private function name(): string
    {
        $parts = ['ba', 'ko', 'mi', 'ra', 'te', 'no', 'li', 'sa', 'vu', 'do', 'he', 'ja'];

        return ucfirst(
            $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)] . $parts[mt_rand(0, 11)],
        );
    }

    private function asList(string $file, School $school): FilesOfList
    {
        return new FilesOfList([[$file, 'bench']], $school, 'bench', (string) Str::ulid());
    }

    /** The exponent is the slope of log time over log rows, by least squares. */
    private function growth(IntakePlans $planner, School $school, int $known): void
    {
        $table = $points = [];
        foreach ([1000, 3000, 10_000, 15_000] as $rows) {
            $file = (string) tempnam(sys_get_temp_dir(), 'bench') . '.xlsx';
            $this->list($file, $rows, intdiv($known, 2));
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
