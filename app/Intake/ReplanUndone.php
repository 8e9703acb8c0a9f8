<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Jobs\PlanIntake;
use App\Ledger\EntryUndone;
use Illuminate\Support\Facades\DB;

/** When the entry of a list is undone, the list goes back to being a plan, made afresh. */
final class ReplanUndone
{
    public function handle(EntryUndone $event): void
    {
        $intake = DB::table('imports')->where('entry_seq', $event->seq)->first();
        if ($intake === null) {
            return;
        }
        DB::table('imports')
            ->where('id', $intake->id)
            ->update([
                'state' => 'reading',
                'round' => $intake->round + 1,
                'entry_seq' => null,
                'fingerprint' => null,
                'message' => 'This list was applied and undone. This is its plan as of now.',
                'changed_at' => now(),
            ]);
        PlanIntake::dispatch($intake->id, $intake->round + 1);
    }
}
