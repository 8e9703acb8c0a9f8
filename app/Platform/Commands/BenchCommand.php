<?php

declare(strict_types=1);

namespace App\Platform\Commands;

use App\Intake\ImportPlanner;
use App\Ledger\Ledger;
use App\LookAlikes\Pairs;
use App\Models\School;
use App\Models\Section;
use App\PrintRoom\CardPrinter;
use Closure;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Print\CardOrder;

/** Times the job on made-up people in an empty database, beside the bare work of others on the same file and rows. */
final class BenchCommand extends Command
{
    private const BULK = 500;

    protected $signature = 'vantrel:bench {--rows=1000 : students in the list}';

    protected $description = 'Measure a list from file to ledger; run by bin/bench on a database of its own';

    public function handle(ImportPlanner $planner, Ledger $ledger, CardPrinter $printer, Pairs $pairs): int
    {
        if (DB::table('people')->exists()) {
            $this->error('This wants an empty database. Run bin/bench.');

            return self::FAILURE;
        }
        $rows = max(10, (int) $this->option('rows'));
        $this->call('vantrel:seed', ['which' => 'empty']);
        $school = School::query()->firstOrFail();
        $file = (string) tempnam(sys_get_temp_dir(), 'bench').'.xlsx';
        $this->list($file, $rows);
        $this->line(sprintf('%d students with two guardians each, .xlsx of %.1f MB, PHP %s, %s', $rows, filesize($file) / 1e6, PHP_VERSION, DB::selectOne('select version() v')->v));

        $bareRead = $this->time(fn (): int => $this->bareRead($file));
        $plan = null;
        $planned = $this->time(function () use ($planner, $file, $school, &$plan): void {
            $plan = $planner->planFiles([[$file, 'bench']], $school, 'bench', (string) Str::ulid())->plan;
        });
        if ($plan === null) {
            return self::FAILURE;
        }
        $bareInsert = $this->time(fn () => $this->bareInsert($plan->changes));
        $this->takeBack($plan->changes);
        $entry = null;
        $applied = $this->time(function () use ($ledger, $plan, $school, &$entry): void {
            $entry = $ledger->apply($plan, $school->id, null, 'intake');
        });
        $again = $this->time(fn () => $planner->planFiles([[$file, 'bench']], $school, 'bench', (string) Str::ulid()));
        $lookAlikes = $this->time(fn () => $pairs->of($school));
        $sections = array_values(Section::query()->limit(10)->pluck('id')->all());
        $cards = 0;
        $printed = $this->time(function () use ($printer, $school, $sections): void {
            $printer->print($school, $sections, [], 'cards-a4', CardOrder::CutStack, false, null);
        });
        $cards = DB::table('badges')->count();
        DB::table('badges')->delete();
        DB::table('sign_ins')->update(['passphrase' => null, 'version' => $entry->seq ?? 0]);
        $undone = $entry === null ? 0.0 : $this->time(fn () => $ledger->undo($entry, null));
        $count = count($plan->changes);
        $this->table(['what', 'seconds', 'yardstick in the same run', 'seconds', 'ratio'], [
            ['read and plan, nobody known', $this->seconds($planned), 'OpenSpout reads the same file', $this->seconds($bareRead), $this->ratio($planned, $bareRead)],
            ['read and plan again, all known', $this->seconds($again), 'OpenSpout reads the same file', $this->seconds($bareRead), $this->ratio($again, $bareRead)],
            ["apply ($count records)", $this->seconds($applied), 'MariaDB inserts the same rows, '.self::BULK.' a statement', $this->seconds($bareInsert), $this->ratio($applied, $bareInsert)],
            ['undo', $this->seconds($undone), 'the same', $this->seconds($bareInsert), $this->ratio($undone, $bareInsert)],
            ["look-alikes among $rows", $this->seconds($lookAlikes), '', '', ''],
            ["$cards login cards as a PDF", $this->seconds($printed), '', '', ''],
        ]);
        $this->line(sprintf('Most memory used: %.0f MB', memory_get_peak_usage(true) / 1048576));
        unlink($file);

        return self::SUCCESS;
    }

    private function list(string $file, int $rows): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($file);
        $writer->addRow(WriterEntityFactory::createRowFromArray(['Student no', 'Given name', 'Family name', 'Date of birth', 'Grade', 'Homeroom', 'Guardian 1', 'Guardian 1 e-mail', 'Guardian 2', 'Guardian 2 e-mail']));
        mt_srand(1);
        for ($i = 0; $i < $rows; $i++) {
            [$given, $family] = [$this->name(), $this->name()];
            $grade = $i % 12 + 1;
            $writer->addRow(WriterEntityFactory::createRowFromArray([
                sprintf('%07d', 1_000_000 + $i), $given, $family, sprintf('%04d-%02d-%02d', 2020 - $grade, mt_rand(1, 12), mt_rand(1, 28)), (string) $grade, "$grade ".['Heron', 'Plover', 'Curlew', 'Tern'][intdiv($i, 12) % 4],
                $this->name()." $family", "a$i@shoremail.example", $this->name()." $family", "b$i@shoremail.example",
            ]));
        }
        $writer->close();
    }

    private function name(): string
    {
        $parts = ['ba', 'ko', 'mi', 'ra', 'te', 'no', 'li', 'sa', 'vu', 'do', 'he', 'ja'];

        return ucfirst($parts[mt_rand(0, 11)].$parts[mt_rand(0, 11)].$parts[mt_rand(0, 11)].$parts[mt_rand(0, 11)]);
    }

    private function bareRead(string $file): int
    {
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->open($file);
        $cells = 0;
        foreach ($reader->getSheetIterator() as $sheet) {
            foreach ($sheet->getRowIterator() as $row) {
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
                $rows = [];
                foreach ($changes as $change) {
                    if ($change->entity === $entity && $change->inserts()) {
                        $rows[] = ['id' => $change->id, ...$change->after];
                    }
                }
                foreach (array_chunk($rows, self::BULK) as $chunk) {
                    DB::table($entity->value)->insert($chunk);
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
