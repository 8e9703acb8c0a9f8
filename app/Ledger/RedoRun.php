<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;

/** Works out how an entry that was undone is done again: from its images, for every record the undo has put back. */
final class RedoRun
{
    public function __construct(private readonly LedgerEntry $entry)
    {
    }

    /**
     * @return list<Change> with the versions the undo has brought back
     *
     * @throws Refusal where it wrote a secret that a record cannot be without
     * @throws StalePlan where a record has changed since the undo
     */
    public function changes(): array
    {
        $changes = $stale = [];
        foreach (Entity::cases() as $entity) {
            $rows = DB::table('ledger_changes as c')->leftJoin("$entity->value as t", 't.id', '=', 'c.row_id')->leftJoin('ledger_entries as w', 'w.seq', '=', 't.version')
                ->where('c.entry_seq', $this->entry->seq)->where('c.entity', $entity->value)->orderBy('c.id')->get(['c.id', 'c.row_id', 'c.was_version', 'c.before', 'c.after', 'c.reason', 't.version', 'w.made_at']);
            foreach ($rows as $row) {
                $there = $row->version !== null;
                // What the undo had to leave is as it was done, or has been changed before the undo.
                $left = $there && ((int) $row->version === $this->entry->seq || ((int) $row->version > $this->entry->seq && $row->made_at <= $this->entry->undone_at));
                if ($left) {
                    continue;
                }
                if ($row->was_version === null ? $there : (! $there || (int) $row->version !== (int) $row->was_version)) {
                    $stale[] = "$entity->value $row->row_id";

                    continue;
                }
                $changes[(int) $row->id] = new Change($entity, $row->row_id, $row->was_version === null ? null : (int) $row->was_version, (array) json_decode($row->before, true), $this->after($entity, $row->after, $row->was_version === null), $row->reason);
            }
        }
        if ($stale !== []) {
            throw new StalePlan(StaleWords::of(array_slice($stale, 0, 20)));
        }
        ksort($changes);

        return array_values($changes);
    }

    /** @return array<string, string|int|null> */
    private function after(Entity $entity, string $image, bool $inserts): array
    {
        /** @var array<string, string|int|null> $values */
        $values = (array) json_decode($image, true, 16, JSON_THROW_ON_ERROR);
        foreach ($entity->secrets() as $column) {
            if (($values[$column] ?? null) !== '(secret)') {
                continue;
            }
            if (! in_array($column, $entity->issued(), true)) {
                throw new Refusal('This wrote cards, links or passes whose secrets are kept nowhere. Make them anew instead of doing this again.');
            }
            if ($inserts) {
                $values[$column] = null;
            } else {
                unset($values[$column]);
            }
        }

        return $values;
    }
}
