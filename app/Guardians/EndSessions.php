<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use Illuminate\Support\Facades\DB;

/**
 * Whoever is disconnected from a child, or kept away from one, is signed out everywhere, however it came about: by
 * hand, by a merge, by an undo. What a page asks for is looked at with each request besides.
 */
final class EndSessions
{
    private const CHUNK = 1000;

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        foreach (array_chunk($event->affected->ties(), self::CHUNK) as $chunk) {
            $guardians = DB::table('guardianships as g')
                ->join('people as p', 'p.id', '=', 'g.guardian_id')
                ->whereIn('g.id', $chunk)
                // A teacher who is a guardian besides goes on working.
                ->where('p.kind', 'guardian')
                ->where(fn($q) => $q->where('g.state', '!=', 'connected')->orWhereNotNull('g.restriction'))
                ->pluck('p.id');
            DB::table('sessions')->whereIn('user_id', $guardians)->delete();
        }
    }
}
