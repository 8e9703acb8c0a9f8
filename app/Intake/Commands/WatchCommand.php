<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\FilesOfList;
use App\Intake\IntakePlans;
use App\Intake\NightlyReport;
use App\Intake\PlannedIntake;
use App\Ledger\Ledger;
use App\Ledger\Turns;
use App\Models\LedgerEntry;
use App\Models\School;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Str;
use Throwable;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Table\UnreadableList;

/**
 * Takes what another system leaves in a folder every night, oldest first: applies what is settled, leaves rows that
 * need a person, and sends the coordinators a report. A file is moved to done/ or to stopped/ beside it, so it is never
 * taken twice.
 */
final class WatchCommand extends Command
{
    /** A file that was touched within so many seconds may still be on its way. */
    private const SETTLED = 10;

    protected $signature =
        'vantrel:watch {folder : where the lists are left} {--school= : code of the school} {--mode=additions : ' .
        'additions, or everyone} {--scope=school : school, grade:04 or section:ID} {--now : take files that were ' .
        'written within the last seconds too}';

    protected $description = 'Apply the lists in a folder and report to the Mailroom; for cron';

    public function handle(IntakePlans $planner, Ledger $ledger, NightlyReport $report): int
    {
        ini_set('memory_limit', '512M');
        $folder = rtrim((string) $this->argument('folder'), '/');
        $school = School::query()->where('code', (string) $this->option('school'))->first();
        if ($school === null || !is_dir($folder) || !in_array($this->option('mode'), ['additions', 'everyone'], true)) {
            $this->error(
                $school === null
                    ? 'No such school. Use --school with one of: ' .
                        implode(', ', School::query()->orderBy('code')->pluck('code')->all())
                    : (is_dir($folder)
                        ? '--mode is additions or everyone.'
                        : "$folder is no folder."),
            );

            return self::INVALID;
        }
        // Two runs that overlap would take the same file.
        $lock = Cache::lock("watch:$school->id", 3600);
        if (!$lock->get()) {
            $this->line('Another run is at work on this school.');

            return self::SUCCESS;
        }
        try {
            $stopped = 0;
            foreach ($this->files($folder) as $file) {
                $stopped += $this->take($file, $folder, $school, $planner, $ledger, $report) ? 0 : 1;
            }

            return $stopped === 0 ? self::SUCCESS : self::FAILURE;
        } finally {
            $lock->release();
        }
    }

    /** @return list<string> */
    private function files(string $folder): array
    {
        $files = array_values(
            array_filter(
                glob("$folder/*") ?: [],
                fn(string $f): bool => is_file($f) &&
                    !str_starts_with(basename($f), '.') &&
                    ($this->option('now') || filemtime($f) <= time() - self::SETTLED),
            ),
        );
        usort($files, fn(string $a, string $b): int => [filemtime($a), $a] <=> [filemtime($b), $b]);

        return $files;
    }

    private function take(
        string $file,
        string $folder,
        School $school,
        IntakePlans $planner,
        Ledger $ledger,
        NightlyReport $report,
    ): bool {
        $name = basename($file);
        $planned = $entry = null;
        try {
            $scope =
                $this->option('mode') === 'everyone' ? (string) Scope::read((string) $this->option('scope')) : null;
            [$planned, $entry] = Turns::take(function () use ($planner, $ledger, $file, $name, $school, $scope): array {
                $planned = $planner->planFiles(
                    new FilesOfList([[$file, $name]], $school, $name, (string) Str::ulid(), everyone: $scope),
                );

                return [
                    $planned,
                    $planned->plan->isEmpty()
                        ? null
                        : $ledger->apply($planned->plan, $school->id, null, Action::Intake),
                ];
            });
            $trouble = '';
        } catch (UnreadableList | Refusal | StalePlan $e) {
            $trouble = $e->getMessage();
        } catch (Throwable $e) {
            report($e);
            $trouble = 'Reading or applying it failed here; nothing was written.';
        }
        $this->move($file, $trouble === '' ? "$folder/done" : "$folder/stopped");
        $report->send($school, $name, $trouble, $planned, $entry);
        $this->line(
            "$name: " .
                ($trouble !== ''
                    ? "stopped. $trouble"
                    : ($planned instanceof PlannedIntake ? $planned->plan->sentence : '') .
                        ($entry instanceof LedgerEntry ? " Ledger entry $entry->id." : '')),
        );

        return $trouble === '';
    }

    private function move(string $file, string $folder): void
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0700);
        }
        rename(
            $file,
            $folder . '/' . now()->format('Ymd-His') . '-' . Str::lower(Str::random(4)) . '-' . basename($file),
        );
    }
}
