<?php

declare(strict_types=1);

namespace App\Intake\Jobs;

use App\Intake\ColumnMemory;
use App\Intake\IntakePlans;
use App\Ledger\Ledger;
use App\Ledger\Turns;
use App\Models\Coordinators;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Platform\QueuedWithState;
use App\Platform\SchoolDay;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\DB;
use Throwable;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Table\UnreadableList;

/**
 * Applies a list in the background: whole or not at all, in one transaction. Killed half-way, the database takes back
 * what was begun, and the job can be run again: the work key lets it write one ledger entry only.
 */
final class ApplyIntake implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    public int $tries = 3;

    public function __construct(
        public readonly string $importId,
        public readonly int $round,
        public readonly string $fingerprint,
        public readonly ?string $actorId,
    ) {
        $this->queueWithState();
    }

    public function handle(IntakePlans $planner, Ledger $ledger, ColumnMemory $memory): void
    {
        ini_set('memory_limit', '512M');
        $intake = Intake::query()->find($this->importId);
        if ($intake === null || $intake->state !== IntakeState::Applying || $intake->round !== $this->round) {
            return;
        }
        try {
            if (!Turns::take(fn(): bool => $this->apply($intake, $planner, $ledger, $memory))) {
                throw new StalePlan(['the people or sections this list meets']);
            }
        } catch (StalePlan $e) {
            $this->planAgain(
                'Since you looked, something changed: ' .
                    implode(', ', array_slice($e->changed, 0, 5)) .
                    '. Nothing was written; this is the fresh plan.',
            );
        } catch (Refusal | UnreadableList $e) {
            $this->planAgain($e->getMessage());
        }
    }

    /** @return bool false where the plan is not any more what had been looked at */
    private function apply(Intake $intake, IntakePlans $planner, Ledger $ledger, ColumnMemory $memory): bool
    {
        // Somebody else may have done it while this one waited for its turn.
        if (
            !Intake::query()
                ->where('id', $intake->id)
                ->where('round', $this->round)
                ->where('state', 'applying')
                ->exists()
        ) {
            return true;
        }
        $planned = $planner->plan($intake, $this->day($intake));
        $plan = $planned->plan;
        if (!hash_equals($this->fingerprint, $plan->fingerprint())) {
            return false;
        }
        $total = count($plan->changes);
        $this->progress(0, $total);
        $ledger->apply(
            $plan,
            $intake->school_id,
            Person::query()->find($this->actorId),
            Action::Intake,
            "import:{$this->importId}:{$this->round}",
            fn(int $done) => $this->progress($done, $total),
            function (LedgerEntry $entry) use ($memory, $planned, $intake): void {
                $memory->keep($intake->school_id, $planned->book, $planned->answers);
                DB::table('imports')
                    ->where('id', $this->importId)
                    ->update([
                        'state' => 'applied',
                        'entry_seq' => $entry->seq,
                        'message' => null,
                        'changed_at' => now(),
                    ]);
            },
            Coordinators::otherSchools($this->actorId, $intake->school_id),
        );

        return true;
    }

    /** The day the plan was made for, as long as that was today or yesterday: nothing is back-dated further. */
    private function day(Intake $intake): string
    {
        $today = SchoolDay::today($intake->school_id);

        return $intake->planned_on !== null &&
            $intake->planned_on >= (string) date('Y-m-d', (int) strtotime("$today -1 day"))
            ? $intake->planned_on
            : $today;
    }

    public function failed(?Throwable $e): void
    {
        $this->planAgain('Applying this list was cut off; nothing of it was written. Apply it again.');
    }

    private function planAgain(string $message): void
    {
        $round = $this->round + 1;
        DB::transaction(function () use ($round, $message): void {
            $changed = DB::table('imports')
                ->where('id', $this->importId)
                ->where('round', $this->round)
                ->where('state', 'applying')
                ->update([
                    'state' => 'reading',
                    'round' => $round,
                    'done' => 0,
                    'total' => 0,
                    'message' => $message,
                    'changed_at' => now(),
                ]);
            if ($changed === 1) {
                PlanIntake::dispatch($this->importId, $round);
            }
        });
    }

    /** Written on a connection of its own: inside the transaction nobody would see it. */
    private function progress(int $done, int $total): void
    {
        DB::connection((string) config('vantrel.progress_connection'))
            ->table('imports')
            ->where('id', $this->importId)
            ->where('state', 'applying')
            ->update(['done' => $done, 'total' => $total, 'changed_at' => now()]);
    }
}
