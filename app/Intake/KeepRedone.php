<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\EntryRedone;
use Illuminate\Support\Facades\DB;

/** When the entry of a list that was undone stands again, the list has been applied again. */
final class KeepRedone
{
    public function handle(EntryRedone $event): void
    {
        [$what, $id] = explode(
            ':',
            (string) DB::table('ledger_entries')->where('seq', $event->seq)->value('work_key'),
        ) + [1 => ''];
        if ($what === 'import') {
            // Whatever plans it just now finds another round and stops.
            DB::table('imports')
                ->where('id', $id)
                ->update([
                    'state' => 'applied',
                    'entry_seq' => $event->seq,
                    'round' => DB::raw('round + 1'),
                    'message' => null,
                    'changed_at' => now(),
                ]);
        }
    }
}
