<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entry;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Stay;
use Vantrel\Core\Plan\Undo;
use Vantrel\Core\Plan\UndoPlanner;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Plan\Written;
use Vantrel\Core\Records\Entity;

/**
 * Takes ledger entries back, inside the caller's transaction, or says what that would come to. Everything they wrote is
 * locked before the core works out what goes back and what stays: nothing is put back over newer work.
 */
final class UndoRun
{
    private const CHUNK = 2000;

    /** Names of what stays that are written out; the rest is counted. */
    private const NAMED = 200;

    /** @var array<int, Affected> number of each entry to what it wrote */
    private array $affected = [];

    /**
     * @var array<int, array<string, array<string, array<string, bool>>>> of each entry, by table and column: the ids of
     *     those whose secret it set, and whether it made them
     */
    private array $issued = [];

    /** @var list<Undo>|null as they would be, nothing locked */
    private ?array $undos = null;

    /**
     * @param list<LedgerEntry> $entries newest first; the last is what is to be undone, the others have to be undone
     *     with it
     * @param  list<string>  $tables what {@see tables()} says of them
     */
    public function __construct(private readonly array $entries, private readonly array $tables) {}

    /**
     * The tables that entries wrote to, in the order in which they are locked. Asked before the transaction that undoes
     * them: its first plain reading settles what all others see, and is to come after the locks.
     *
     * @param  list<string>  $ids of entries
     * @return list<string>
     */
    public static function tables(array $ids): array
    {
        return array_values(
            DB::table('ledger_changes as c')
                ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
                ->whereIn('e.id', $ids)
                ->distinct()
                ->pluck('c.entity')
                ->map(strval(...))
                ->sort()
                ->all(),
        );
    }

    /** What undoing would come to; nothing is changed. */
    public function look(): UndoOutlook
    {
        $undos = $this->undos ??= $this->plan(false);
        /** @var LedgerEntry $entry */
        $entry = $this->entries[count($this->entries) - 1];
        $sum = fn(callable $of): int => array_sum(array_map($of, $undos));
        $words = fn(callable $of): array => array_values(array_unique(array_merge(...array_map($of, $undos))));
        /** @var Collection<int, LedgerEntry> $first */
        $first = LedgerEntry::query()
            ->whereIn('id', [...$this->with(), ...$this->missing()])
            ->orderByDesc('seq')
            ->get();

        return new UndoOutlook(
            $entry->id,
            Undo::fingerprint($undos),
            $sum(fn(Undo $u): int => $u->goesBack),
            $sum(fn(Undo $u): int => $u->staysCount()),
            $words($this->stays(...)),
            array_slice($words($this->lost(...)), 0, self::NAMED),
            array_values(
                $first->map(fn(LedgerEntry $e): UndoFirst => new UndoFirst($e->id, $e->title, $e->made_at))->all(),
            ),
            array_filter($undos, fn(Undo $u): bool => $u->blocked) !== [],
        );
    }

    /** @return list<string> ids of the later entries that are undone with it */
    public function with(): array
    {
        return array_map(fn(LedgerEntry $e): string => $e->id, array_slice($this->entries, 0, -1));
    }

    /** @return list<string> ids of later entries that hold what would stay, newest first */
    public function missing(): array
    {
        $missing = array_merge(...array_map(fn(Undo $u): array => $u->first, $this->undos ??= $this->plan(false)));

        return array_map(
            strval(...),
            array_values(
                LedgerEntry::query()
                    ->whereIn(
                        'seq',
                        array_diff($missing, array_map(fn(LedgerEntry $e): int => $e->seq, $this->entries)),
                    )
                    ->orderByDesc('seq')
                    ->pluck('id')
                    ->all(),
            ),
        );
    }

    /**
     * @param  string|null  $fingerprint of what was looked at; null where nothing was
     * @return array<int, list<string>> number of each entry to what stays of it, in words
     *
     * @throws StalePlan where it would come to something else than was looked at
     * @throws Refusal where what an entry is about could not go back
     */
    public function run(?string $fingerprint): array
    {
        $undos = $this->plan(true);
        if ($fingerprint !== null && !hash_equals(Undo::fingerprint($undos), $fingerprint)) {
            throw new StalePlan(['what undoing it would come to']);
        }
        $kept = [];
        foreach ($undos as $undo) {
            if ($undo->blocked) {
                $this->refuse($undo);
            }
            $kept[$undo->seq] = array_slice([...$this->stays($undo), ...$this->lost($undo)], 0, 2 * self::NAMED);
            $this->putBack($undo);
            $this->endIssued($undo);
        }

        return $kept;
    }

    /** @return list<Undo> */
    private function plan(bool $locked): array
    {
        $versions = $this->versions($locked);
        $entries = array_map(
            fn(LedgerEntry $e): Entry => new Entry($e->seq, $e->done(), $e->action(), $this->written($e->seq)),
            $this->entries,
        );

        return UndoPlanner::together($entries, new RowsNow($locked, $versions));
    }

    /** @return list<Written> of an entry; what it affects is noted on the way */
    private function written(int $seq): array
    {
        $affected = $this->affected[$seq] = new Affected();
        $written = [];
        foreach (Images::of($seq) as $image) {
            $affected->add($image);
            $written[] = $of = Written::of($image);
            foreach ($of->issued as $column) {
                $this->issued[$seq][$of->entity->value][$column][$of->id] = $of->inserts();
            }
        }

        return $written;
    }

    /** What an entry wrote that has been taken back by {@see run()}. */
    public function affected(int $seq): Affected
    {
        return $this->affected[$seq];
    }

    private function refuse(Undo $undo): never
    {
        $title = LedgerEntry::query()->where('seq', $undo->seq)->value('title');
        $later = LedgerEntry::query()
            ->whereIn('seq', $undo->first)
            ->orderByDesc('seq')
            ->pluck('title')
            ->map(strval(...))
            ->all();
        throw new Refusal(
            "“{$title}” cannot go back by itself: what came of it has been worked with since." .
                ($later === []
                    ? ' Change it by hand.'
                    : ' Undo first, newest first: ' .
                        Words::some(array_values($later), 5) .
                        '. The Ledger undoes them together.'),
        );
    }

    /**
     * Of all that was written, locked first where it is to go back: table by table in one order for everybody, so that
     * two at once wait for each other instead of locking each other out.
     *
     * @return array<string, array<string, int>> table and id to version now
     */
    private function versions(bool $locked): array
    {
        $changes = fn(): Builder => DB::table('ledger_changes')->whereIn(
            'entry_seq',
            array_map(fn(LedgerEntry $e): int => $e->seq, $this->entries),
        );
        $versions = [];
        foreach ($this->tables as $table) {
            $versions[$table] = DB::table($table)
                ->whereIn('id', $changes()->where('entity', $table)->select('row_id'))
                ->orderBy('id')
                ->when($locked, fn(Builder $q) => $q->lockForUpdate())
                ->pluck('version', 'id')
                ->map(fn(mixed $version): int => (int) $version)
                ->all();
        }

        return $versions;
    }

    /** @return list<string> what stays and why, the first of each kind by name, the rest counted */
    private function stays(Undo $undo): array
    {
        $records = [];
        foreach ($undo->stays as $table => $ids) {
            foreach ($ids as $id => $why) {
                $records[$why->value][] = "$table $id";
            }
        }
        unset($records[Stay::Belongs->value]);
        $words = [];
        foreach ($records as $why => $of) {
            foreach (StaleWords::of(array_slice($of, 0, self::NAMED)) as $name) {
                $words[] = "$name: $why";
            }
            if (count($of) > self::NAMED) {
                $words[] = 'and ' . Words::count(count($of) - self::NAMED, 'more record', 'more records') . ": $why";
            }
        }

        return $words;
    }

    /** @return list<string> secrets that what goes back had, and that are in no ledger */
    private function lost(Undo $undo): array
    {
        $records = [];
        foreach ($undo->lost as [$entity, $id, $column]) {
            $records[$column][] = "$entity->value $id";
        }
        $words = [];
        foreach ($records as $column => $of) {
            foreach (StaleWords::of(array_slice($of, 0, self::NAMED)) as $name) {
                $words[] = "$name: the $column from before cannot come back; print a new card or send a link";
            }
            if (count($of) > self::NAMED) {
                $words[] =
                    'and ' .
                    number_format(count($of) - self::NAMED) .
                    " more: the $column from before cannot come back";
            }
        }

        return $words;
    }

    /**
     * What the entry issued ends with it: a password, a passphrase or pictures that it set are no more, also where the
     * account stays because somebody has signed in to it.
     */
    private function endIssued(Undo $undo): void
    {
        foreach ($this->issued[$undo->seq] ?? [] as $table => $columns) {
            foreach ($columns as $column => $set) {
                // What it made is gone, unless it stays.
                $ids = array_filter(
                    array_map(strval(...), array_keys($set)),
                    fn(string $id): bool => !$set[$id] || $undo->keeps(Entity::from($table), $id),
                );
                foreach (array_chunk($ids, self::CHUNK) as $chunk) {
                    DB::table($table)
                        ->whereIn('id', $chunk)
                        ->update([$column => null]);
                }
            }
        }
    }

    /**
     * Exactly the other way round than it was written, so that every constraint that held on the way there holds on the
     * way back.
     */
    private function putBack(Undo $undo): void
    {
        $run = [];
        $shape = '';
        foreach (Images::backwards($undo->seq) as $image) {
            /** @var Change $image */
            if ($undo->keeps($image->entity, $image->id)) {
                continue;
            }
            $next =
                $image->entity->value . '|' . ($image->inserts() ? 'delete' : implode(',', array_keys($image->before)));
            if ($run !== [] && ($next !== $shape || count($run) === self::CHUNK)) {
                $this->write($shape, $run);
                $run = [];
            }
            $shape = $next;
            $run[] = ['id' => $image->id, 'version' => (int) $image->version, ...$image->before];
        }
        if ($run !== []) {
            $this->write($shape, $run);
        }
    }

    /** @param  non-empty-list<array<string, string|int|null>>  $run */
    private function write(string $shape, array $run): void
    {
        [$table, $what] = explode('|', $shape);
        if ($what !== 'delete') {
            SetUpdate::run($table, $run);

            return;
        }
        $ids = array_map(strval(...), array_column($run, 'id'));
        foreach (RowsNow::goesWith(Entity::from($table), $ids) as [$of, $column]) {
            DB::table($of)->whereIn($column, $ids)->delete();
        }
        DB::table($table)->whereIn('id', $ids)->delete();
    }
}
