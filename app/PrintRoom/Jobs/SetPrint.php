<?php

declare(strict_types=1);

namespace App\PrintRoom\Jobs;

use App\Models\PrintRun;
use App\Models\PrintState;
use App\PrintRoom\CardJob;
use App\PrintRoom\LetterJob;
use App\PrintRoom\PrintRuns;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;
use Vantrel\Core\Plan\Refusal;

/**
 * Sets a large print in the background. Killed half-way it is begun anew: what it had issued was on no paper, and works
 * beside what is issued then.
 */
final class SetPrint implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;

    public int $tries = 3;

    public function __construct(public readonly string $runId, private readonly CardJob|LetterJob $wish) {}

    public function handle(PrintRuns $runs): void
    {
        ini_set('memory_limit', '512M');
        $run = PrintRun::query()->find($this->runId);
        if ($run === null || !in_array($run->state, [PrintState::Waiting, PrintState::Working], true)) {
            return;
        }
        try {
            $runs->set($run, $this->wish);
        } catch (Refusal $e) {
            $runs->fail($run, $e->getMessage(), $e->field);
        }
    }

    public function failed(?Throwable $_): void
    {
        $run = PrintRun::query()->find($this->runId);
        if ($run !== null && $run->state !== PrintState::Done) {
            app(PrintRuns::class)->fail($run, 'The print could not be set. Print it again.', null);
        }
    }
}
