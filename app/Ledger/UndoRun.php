<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;

/**
 * Takes one ledger entry back, inside the caller's transaction, or says what that would come to. A record that was written again since,
 * an inserted record that others refer to by now, and an account that has been signed in to, stay; with them stays what they refer to,
 * and what they cannot be without. Everything the entry wrote is locked before it is looked at: nothing is put back over newer work.
 */
final class UndoRun
{
    private const CHUNK = 500;

    /** Names of what stays that are written out; the rest is counted. */
    private const NAMED = 200;

    /** Entries that are named as having to be undone first. */
    private const FIRST = 500;

    /** What points at records of plans from outside and holds them: somebody has worked with them. A test holds both lists against the schema. */
    public const HOLD = [
        ['ledger_entries', 'actor_id', Entity::Person], ['ledger_entries', 'undone_by', Entity::Person], ['imports', 'actor_id', Entity::Person], ['match_weights', 'made_by', Entity::Person],
    ];

    /** What points at them and goes with them. */
    public const GO_WITH = [['second_factors', 'person_id', Entity::Person], ['credential_uses', 'person_id', Entity::Person], ['password_resets', 'sign_in_id', Entity::SignIn]];

    /** @var array<string, array<string, true>> table to ids that stay */
    private array $keep = [];

    /** @var array<string, array<string, true>> table to ids that the entry inserted */
    private array $inserted = [];

    /** @var array<string, array<string, true>> table to ids that the entry wrote at all */
    private array $written = [];

    /** @var array<string, list<string>> why something stays to records, as `table id` */
    private array $why = [];

    /** Whether what is looked at is locked, so that it is as it is now and stays so until the work is done. */
    private bool $locks = false;

    /** @var array<string, true> ids of records of later entries that hold what this one inserted */
    private array $holders = [];

    public function __construct(private readonly LedgerEntry $entry)
    {
    }

    /** What undoing would come to; nothing is changed. */
    public function look(): UndoOutlook
    {
        $this->find();
        $stays = array_sum(array_map(count(...), $this->keep));
        $lost = $this->lost();

        return new UndoOutlook(
            $this->entry->id, $this->entry->changes_count - $stays, $stays, $this->words(), array_slice($lost, 0, self::NAMED),
            $stays === 0 ? [] : array_map(fn (object $e): UndoFirst => new UndoFirst($e->id, $e->title, $e->made_at), $this->later()), $this->mustBeWhole(),
        );
    }

    /**
     * @return list<string> what stays, in words
     *
     * @throws Refusal where what the entry is about could not go back
     */
    public function run(): array
    {
        $this->lock();
        $this->find();
        if ($this->mustBeWhole()) {
            $later = array_map(fn (object $e): string => $e->title, $this->later());
            throw new Refusal("“{$this->entry->title}” cannot go back by itself: what came of it has been worked with since.".($later === [] ? ' Change it by hand.' : ' Undo first, newest first: '.Words::some($later, 5).'. The Ledger undoes them together.'));
        }
        $lost = $this->lost();
        $this->putBack();
        $this->endIssued();

        return array_slice([...$this->words(), ...$lost], 0, 2 * self::NAMED);
    }

    /** Table by table in one order for everybody, so that two at once wait for each other instead of locking each other out. */
    private function lock(): void
    {
        $this->locks = true;
        $tables = array_map(fn (Entity $e): string => $e->value, Entity::cases());
        sort($tables);
        foreach ($tables as $table) {
            DB::table($table)->whereIn('id', fn (Builder $q) => $q->select('row_id')->from('ledger_changes')->where('entry_seq', $this->entry->seq)->where('entity', $table))->orderBy('id')->lockForUpdate()->count('id');
        }
    }

    private function find(): void
    {
        foreach (DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->orderBy('id')->select('id', 'entity', 'row_id', 'was_version')->lazyById(5000, 'id') as $change) {
            $this->written[$change->entity][$change->row_id] = true;
            if ($change->was_version === null) {
                $this->inserted[$change->entity][$change->row_id] = true;
            }
        }
        $this->keepChanged();
        $this->keepUsed();
        do {
            $before = array_sum(array_map(count(...), $this->keep));
            $this->keepReferred();
            $this->keepNeeded();
        } while (array_sum(array_map(count(...), $this->keep)) > $before);
    }

    private function keepChanged(): void
    {
        foreach (Entity::cases() as $entity) {
            $changed = $this->table('ledger_changes as c')->leftJoin("$entity->value as t", 't.id', '=', 'c.row_id')
                ->where('c.entry_seq', $this->entry->seq)->where('c.entity', $entity->value)
                ->whereRaw('(t.version IS NULL OR t.version <> ?)', [$this->entry->seq])->pluck('c.row_id')->all();
            $this->keep($entity, $changed, 'changed since');
        }
    }

    /** An account someone has signed in to is not taken away under them. */
    private function keepUsed(): void
    {
        foreach ($this->chunks(Entity::SignIn) as $ids) {
            $this->keep(Entity::SignIn, $this->table('sign_ins')->whereIn('id', $ids)->whereNotNull('last_signed_in_at')->pluck('id')->all(), 'signed in to since');
        }
    }

    /** What a record that stays refers to stays as well; and what records from elsewhere refer to stays. */
    private function keepReferred(): void
    {
        foreach (array_reverse(Entity::cases()) as $child) {
            foreach ($child->references() as $column => $parent) {
                foreach ($this->chunks($parent) as $ids) {
                    $held = [];
                    foreach ($this->table($child->value)->whereIn($column, $ids)->select('id', "$column as parent")->get() as $row) {
                        // A row this entry wrote goes, or goes back to before it could refer to what the entry inserted.
                        if (! isset($this->written[$child->value][$row->id]) || isset($this->keep[$child->value][$row->id])) {
                            $held[] = (string) $row->parent;
                            if (! isset($this->written[$child->value][$row->id])) {
                                $this->holders[(string) $row->id] = true;
                            }
                        }
                    }
                    $this->keep($parent, $held, 'in use since');
                }
            }
        }
        foreach (self::HOLD as [$table, $column, $entity]) {
            foreach ($this->chunks($entity) as $ids) {
                $this->keep($entity, $this->table($table)->whereIn($column, $ids)->distinct()->pluck($column)->all(), 'has worked here since');
            }
        }
    }

    /** What a record of this entry that stays cannot be without stays with it: a student's user name, sections and guardians. */
    private function keepNeeded(): void
    {
        foreach (Entity::cases() as $child) {
            foreach ($child->neededBy() as $column => $parent) {
                $kept = array_keys(array_intersect_key($this->keep[$parent->value] ?? [], $this->inserted[$parent->value] ?? []));
                foreach (array_chunk($kept, self::CHUNK) as $ids) {
                    $needed = DB::table($child->value)->whereIn($column, array_map(strval(...), $ids))->pluck('id')->filter(fn (mixed $id): bool => is_string($id) && isset($this->inserted[$child->value][$id]))->all();
                    $this->keep($child, $needed, '');
                }
            }
        }
    }

    /** A reading of how things are now: without a lock it would be of how they were when the transaction began. */
    private function table(string $table): Builder
    {
        return $this->locks ? DB::table($table)->sharedLock() : DB::table($table);
    }

    /** @return list<list<string>> ids that the entry inserted */
    private function chunks(Entity $entity): array
    {
        return array_chunk(array_map(strval(...), array_keys($this->inserted[$entity->value] ?? [])), self::CHUNK);
    }

    /**
     * @param  array<int|string, mixed>  $ids
     * @param  string  $why '' for what stays with something that is named
     */
    private function keep(Entity $entity, array $ids, string $why): void
    {
        foreach ($ids as $id) {
            if (! isset($this->keep[$entity->value][(string) $id])) {
                $this->keep[$entity->value][(string) $id] = true;
                $this->why[$why][] = "$entity->value $id";
            }
        }
    }

    /** @return list<string> what stays and why, the first of each kind by name, the rest counted */
    private function words(): array
    {
        $words = [];
        foreach ($this->why as $why => $records) {
            if ($why === '') {
                continue;
            }
            $named = StaleWords::of(array_slice($records, 0, self::NAMED));
            foreach ($named as $name) {
                $words[] = "$name: $why";
            }
            if (count($records) > self::NAMED) {
                $words[] = 'and '.Words::count(count($records) - self::NAMED, 'more record', 'more records').": $why";
            }
        }

        return $words;
    }

    /** Whether what the entry is about would stay, so that the rest alone would make no sense. */
    private function mustBeWhole(): bool
    {
        foreach ($this->entry->action()->standsOn() as $entity) {
            $kept = array_map(strval(...), array_keys($this->keep[$entity->value] ?? []));
            if ($kept !== [] && ($entity !== Entity::Person || DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->where('entity', $entity->value)->whereIn('row_id', $kept)->whereRaw("JSON_VALUE(`after`, '$.state') = 'merged'")->exists())) {
                return true;
            }
        }

        return false;
    }

    /** @return list<stdClass> later entries that hold what would stay, newest first */
    private function later(): array
    {
        $kept = [];
        foreach ($this->keep as $ids) {
            $kept = [...$kept, ...array_map(strval(...), array_keys($ids))];
        }
        $rows = [...$kept, ...array_map(strval(...), array_keys($this->holders))];
        $found = [];
        foreach (array_chunk($rows, self::CHUNK) as $ids) {
            foreach (DB::table('ledger_changes as c')->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')->whereIn('c.row_id', $ids)->where('c.entry_seq', '>', $this->entry->seq)->whereNull('e.undone_at')->distinct()->get(['e.seq', 'e.id', 'e.title', 'e.made_at']) as $e) {
                $found[(int) $e->seq] = $e;
            }
        }
        krsort($found);

        return array_slice(array_values($found), 0, self::FIRST);
    }

    /** @return list<string> secrets that what goes back had, and that are in no ledger */
    private function lost(): array
    {
        $words = [];
        foreach (Entity::cases() as $entity) {
            foreach ($entity->issued() as $column) {
                $replaced = $this->issued($entity, $column)->filter(fn (object $c): bool => $c->was_version !== null && (int) $c->was_none === 0)->map(fn (object $c): string => "$entity->value $c->row_id")->values();
                foreach (StaleWords::of(array_values($replaced->take(self::NAMED)->all())) as $name) {
                    $words[] = "$name: the $column from before cannot come back; print a new card or send a link";
                }
                if ($replaced->count() > self::NAMED) {
                    $words[] = 'and '.number_format($replaced->count() - self::NAMED)." more: the $column from before cannot come back";
                }
            }
        }

        return $words;
    }

    /** @return Collection<int, stdClass> changes of the entry that set a secret */
    private function issued(Entity $entity, string $column): Collection
    {
        return DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->where('entity', $entity->value)->whereRaw("JSON_VALUE(`after`, ?) = '(secret)'", ["$.$column"])
            ->get(['row_id', DB::raw("JSON_EXISTS(`before`, '$.$column') as was_none"), 'was_version']);
    }

    /**
     * What the entry issued ends with it: a password, a passphrase or pictures that it set are no more, also where the account
     * stays because somebody has signed in to it.
     */
    private function endIssued(): void
    {
        foreach (Entity::cases() as $entity) {
            foreach ($entity->issued() as $column) {
                foreach ($this->issued($entity, $column)->pluck('row_id')->chunk(self::CHUNK) as $ids) {
                    DB::table($entity->value)->whereIn('id', $ids)->update([$column => null]);
                }
            }
        }
    }

    /** Exactly the other way round than it was written, so that every constraint that held on the way there holds on the way back. */
    private function putBack(): void
    {
        $run = [];
        $shape = '';
        foreach (DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->orderByDesc('id')->select('id', 'entity', 'row_id', 'was_version', 'before')->lazyByIdDesc(5000, 'id') as $change) {
            if (isset($this->keep[$change->entity][$change->row_id])) {
                continue;
            }
            /** @var array<string, string|int|null> $before */
            $before = (array) json_decode($change->before, true, 16, JSON_THROW_ON_ERROR);
            $next = $change->entity.'|'.($change->was_version === null ? 'delete' : implode(',', array_keys($before)));
            if ($run !== [] && ($next !== $shape || count($run) === self::CHUNK)) {
                $this->write($shape, $run);
                $run = [];
            }
            $shape = $next;
            $run[] = ['id' => $change->row_id, 'version' => (int) $change->was_version, ...$before];
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
        $ids = array_column($run, 'id');
        foreach (self::GO_WITH as [$of, $column, $entity]) {
            if ($entity->value === $table) {
                DB::table($of)->whereIn($column, $ids)->delete();
            }
        }
        DB::table($table)->whereIn('id', $ids)->delete();
    }
}
