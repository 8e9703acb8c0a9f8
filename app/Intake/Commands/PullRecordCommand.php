<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\RecordPulls;
use App\Models\RecordSource;
use App\Models\School;
use Illuminate\Console\Command;
use Throwable;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Table\UnreadableList;

/** Brings in what has changed in the records of schools that want it nightly, inside the limits each has set. */
final class PullRecordCommand extends Command
{
    protected $signature = 'vantrel:pull-record {--school= : code of one school, whether it wants it nightly or not}';

    protected $description = 'Bring in what has changed in the schools’ records; for the night';

    public function handle(RecordPulls $pulls): int
    {
        ini_set('memory_limit', '512M');
        $code = $this->option('school');
        $failed = 0;
        foreach (School::query()->orderBy('code')->get() as $school) {
            $source = RecordSource::query()->find($school->id);
            if ($source === null || (is_string($code) ? $school->code !== $code : $source->nightly === 0)) {
                continue;
            }
            try {
                $this->line("$school->name: " . $pulls->nightly($school));
            } catch (Refusal | UnreadableList | StalePlan $e) {
                $source->update(['said' => mb_strimwidth($e->getMessage(), 0, 500, '…')]);
                $this->error("$school->name: {$e->getMessage()}");
                $failed++;
            } catch (Throwable $e) {
                report($e);
                $source->update(['said' => 'Reading or applying it failed here; nothing was written.']);
                $failed++;
            }
        }

        return $failed === 0 ? self::SUCCESS : self::FAILURE;
    }
}
