<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Jobs\PlanIntake;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Platform\Queues;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Finds lists that say they are being read or applied while nothing works on them, and gives them back: reading begins
 * again, and a list that was not applied can be applied. Applying writes its state in the transaction that writes
 * everything else, so a list that still says "applying" has written nothing.
 */
final class SweepIntakes
{
    /** Seconds after which a list without a job in the database is not one that is just being queued. */
    private const QUEUED = 30;

    /** Seconds without any news after which a job in another queue is given up. */
    private const SILENT = 1800;

    /** @return int lists given back */
    public function run(): int
    {
        $inDatabase = Queues::inDatabase();
        $quiet = CarbonImmutable::now('UTC')->subSeconds($inDatabase ? self::QUEUED : self::SILENT);
        /** @var Collection<int, Intake> $lists */
        $lists = Intake::query()
            ->whereIn('state', ['reading', 'applying'])
            ->where('changed_at', '<', $quiet)
            ->when(
                $inDatabase,
                fn($q) => $q->whereNotExists(
                    fn($j) => $j->from('jobs')->whereRaw("jobs.payload LIKE CONCAT('%', imports.id, '%')"),
                ),
            )
            ->orderBy('id')
            ->limit(500)
            ->get(['id', 'round', 'state']);

        return $lists->filter(fn(Intake $list): bool => DB::transaction(fn(): bool => $this->giveBack($list)))->count();
    }

    private function giveBack(Intake $list): bool
    {
        // Only as it was found: whatever has worked on it in the meantime knows better.
        $given =
            DB::table('imports')
                ->where('id', $list->id)
                ->where('round', $list->round)
                ->where('state', $list->state)
                ->update([
                    'state' => 'reading',
                    'round' => $list->round + 1,
                    'fingerprint' => null,
                    'done' => 0,
                    'total' => 0,
                    'changed_at' => now(),
                    'message' =>
                        $list->state === IntakeState::Applying
                            ? 'Applying this list was cut off; nothing of it was written. This is its plan as ' .
                                'of now: apply it again.'
                            : null,
                ]) === 1;
        if ($given) {
            PlanIntake::dispatch($list->id, $list->round + 1);
        }

        return $given;
    }
}
