<?php

declare(strict_types=1);

namespace App\Guardians\Jobs;

use App\Guardians\InviteDesk;
use App\Models\InviteRun;
use App\Models\PrintState;
use App\Models\School;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;
use Vantrel\Core\Plan\Refusal;

/**
 * Invites many guardians in the background. The ledger takes all of them in one piece; the mails go out after it, some
 * hundreds in a transaction. Killed anywhere, the next run goes on with those not yet handed over.
 */
final class InviteGuardians implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;

    private const CHUNK = 200;

    /** One run of the job lasts about so long, in seconds; what is left goes to the next, so no worker is held up. */
    private const SPELL = 60;

    public int $tries = 5;

    public function __construct(public readonly string $runId) {}

    public function handle(InviteDesk $desk): void
    {
        ini_set('memory_limit', '512M');
        $run = InviteRun::query()->find($this->runId);
        if ($run === null || !in_array($run->state, [PrintState::Waiting, PrintState::Working], true)) {
            return;
        }
        $school = School::query()->findOrFail($run->school_id);
        try {
            $desk->write($run, $school);
        } catch (Refusal $e) {
            $run->update(['state' => PrintState::Failed, 'said' => $e->getMessage()]);

            return;
        }
        $run->refresh();
        $until = microtime(true) + self::SPELL;
        while ($desk->further($run, $school, self::CHUNK)) {
            if (microtime(true) > $until) {
                self::dispatch($run->id);

                return;
            }
        }
    }

    public function failed(?Throwable $_): void
    {
        InviteRun::query()
            ->where('id', $this->runId)
            ->where('state', '!=', PrintState::Done->value)
            ->update(['state' => PrintState::Failed, 'said' => 'It stopped half-way. Invite the rest again.']);
    }
}
