<?php

declare(strict_types=1);

namespace App\Intake\Jobs;

use App\Intake\RecordPulls;
use App\Models\Person;
use App\Models\RecordSource;
use App\Models\School;
use App\Platform\QueuedWithState;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Table\UnreadableList;

/**
 * Asks a school's record in the background, for all of it or what has changed: another machine answers as slowly as it
 * likes. Killed half-way it asks again; the list and that it was asked are written in one transaction.
 */
final class PullRecord implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    public int $tries = 3;

    public function __construct(
        private readonly string $schoolId,
        private readonly string $what,
        private readonly string $actorId,
    ) {
        $this->queueWithState();
    }

    public function handle(RecordPulls $pulls): void
    {
        ini_set('memory_limit', '512M');
        $school = School::query()->findOrFail($this->schoolId);
        if (RecordSource::query()->find($this->schoolId)?->asking !== $this->what) {
            return;
        }
        try {
            $pulls->pull($school, $this->what, '', Person::query()->findOrFail($this->actorId));
        } catch (Refusal | UnreadableList $e) {
            $this->say($e->getMessage());
        }
    }

    public function failed(?Throwable $e): void
    {
        $this->say('Asking the record was cut off, and nothing came of it. Ask again.');
    }

    private function say(string $sentence): void
    {
        RecordSource::query()
            ->where('school_id', $this->schoolId)
            ->where('asking', $this->what)
            ->update(['asking' => null, 'asking_since' => null, 'said' => mb_strimwidth($sentence, 0, 500, '…')]);
    }
}
