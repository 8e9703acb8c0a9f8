<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\Ledger\Touched;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\Entity;

/**
 * Notes when records were changed that programs read: in the transaction that changes them, also where that is undone,
 * so that a program that asks for what has changed since is told of it.
 */
final class Touch
{
    private const CHUNK = 1000;

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        $seq = $event instanceof EntryWritten ? $event->entry->seq : $event->seq;
        $own = [Entity::School, Entity::SchoolYear, Entity::Section, Entity::Enrollment];
        $rows = DB::table('ledger_changes')
            ->where('entry_seq', $seq)
            ->whereIn('entity', array_map(fn(Entity $e): string => $e->value, $own))
            ->distinct()
            ->pluck('row_id');
        // A tie stands in the records of both its ends, a user name in that of whose it is.
        $ids = $rows->concat(Touched::people($seq, Entity::Person, Entity::SignIn, Entity::Guardianship))->unique();
        $now = now()->format('Y-m-d H:i:s.v');
        foreach ($ids->chunk(self::CHUNK) as $chunk) {
            DB::table('roster_touched')->upsert(
                $chunk->map(fn(mixed $id): array => ['row_id' => (string) $id, 'at' => $now])->values()->all(),
                ['row_id'],
            );
        }
    }
}
