<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\LazyCollection;
use stdClass;
use Vantrel\Core\Plan\Entity;

/**
 * Takes one ledger entry back, inside the caller's transaction. A record that was written again since, an inserted record
 * that others refer to by now, and an account that has been signed in to, stay; with them stays what they refer to.
 */
final class UndoRun
{
    private const CHUNK = 500;

    /** What points at records of plans from outside and holds them: somebody has worked with them. A test holds both lists against the schema. */
    public const HOLD = [
        ['ledger_entries', 'actor_id', Entity::Person], ['ledger_entries', 'undone_by', Entity::Person], ['imports', 'actor_id', Entity::Person], ['match_weights', 'made_by', Entity::Person],
    ];

    /** What points at them and goes with them. */
    public const GO_WITH = [['second_factors', 'person_id', Entity::Person], ['credential_uses', 'person_id', Entity::Person], ['password_resets', 'sign_in_id', Entity::SignIn]];

    /** @var array<string, array<string, true>> table to ids that stay */
    private array $keep = [];

    /** @var array<string, list<string>> table to ids that the entry inserted */
    private array $inserted = [];

    /** @var array<string, array<string, true>> table to ids that the entry wrote at all */
    private array $written = [];

    /** @var list<string> */
    private array $words = [];

    public function __construct(private readonly LedgerEntry $entry)
    {
    }

    /** @return list<string> what stays, in words */
    public function run(): array
    {
        foreach ($this->changes() as $change) {
            $this->written[$change->entity][$change->row_id] = true;
            if ($change->was_version === null) {
                $this->inserted[$change->entity][] = $change->row_id;
            }
        }
        $this->keepChanged();
        $this->keepUsed();
        $this->keepReferred();
        $this->putBack();
        $this->endIssued();

        return array_slice(array_values(array_unique($this->words)), 0, 200);
    }

    /** @return LazyCollection<int, stdClass> in the order they were written */
    private function changes(): LazyCollection
    {
        return DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->orderBy('id')
            ->select('id', 'entity', 'row_id', 'was_version')->lazyById(5000, 'id');
    }

    private function keepChanged(): void
    {
        foreach (Entity::cases() as $entity) {
            $changed = DB::table('ledger_changes as c')->leftJoin("$entity->value as t", 't.id', '=', 'c.row_id')
                ->where('c.entry_seq', $this->entry->seq)->where('c.entity', $entity->value)
                ->whereRaw('(t.version IS NULL OR t.version <> ?)', [$this->entry->seq])->pluck('c.row_id')->all();
            $this->keep($entity, $changed, 'changed since');
        }
    }

    /** An account someone has signed in to is not taken away under them. */
    private function keepUsed(): void
    {
        foreach (array_chunk($this->inserted[Entity::SignIn->value] ?? [], self::CHUNK) as $ids) {
            $used = DB::table('sign_ins')->whereIn('id', $ids)->whereNotNull('last_signed_in_at')->pluck('id')->all();
            $this->keep(Entity::SignIn, $used, 'signed in to since');
        }
    }

    /** What a record that stays refers to stays as well; and what records from elsewhere refer to stays. */
    private function keepReferred(): void
    {
        foreach (array_reverse(Entity::cases()) as $child) {
            foreach ($child->references() as $column => $parent) {
                foreach (array_chunk($this->inserted[$parent->value] ?? [], self::CHUNK) as $ids) {
                    $rows = DB::table($child->value)->whereIn($column, $ids)->select('id', "$column as parent")->get();
                    $held = [];
                    foreach ($rows as $row) {
                        // A row this entry wrote goes, or goes back to before it could refer to what the entry inserted.
                        if (! isset($this->written[$child->value][$row->id]) || isset($this->keep[$child->value][$row->id])) {
                            $held[] = (string) $row->parent;
                        }
                    }
                    $this->keep($parent, $held, 'in use since');
                }
            }
        }
        foreach (self::HOLD as [$table, $column, $entity]) {
            foreach (array_chunk($this->inserted[$entity->value] ?? [], self::CHUNK) as $ids) {
                $this->keep($entity, DB::table($table)->whereIn($column, $ids)->distinct()->pluck($column)->all(), 'has worked here since');
            }
        }
    }

    /** @param  array<int|string, mixed>  $ids */
    private function keep(Entity $entity, array $ids, string $why): void
    {
        $fresh = [];
        foreach ($ids as $id) {
            if (! isset($this->keep[$entity->value][(string) $id])) {
                $this->keep[$entity->value][(string) $id] = true;
                $fresh[] = "$entity->value $id";
            }
        }
        foreach (StaleWords::of(array_slice($fresh, 0, 50)) as $name) {
            $this->words[] = "$name: $why";
        }
    }

    /**
     * What the entry issued ends with it: a password, a passphrase or pictures that it set are no more, also where the account
     * stays because somebody has signed in to it. What stood there before is in no ledger and cannot come back; that is said.
     */
    private function endIssued(): void
    {
        foreach (Entity::cases() as $entity) {
            foreach ($entity->issued() as $column) {
                $changes = DB::table('ledger_changes')->where('entry_seq', $this->entry->seq)->where('entity', $entity->value)->whereRaw("JSON_VALUE(`after`, ?) = '(secret)'", ["$.$column"])
                    ->get(['row_id', DB::raw("JSON_EXISTS(`before`, '$.$column') as was_none"), 'was_version']);
                foreach ($changes->pluck('row_id')->chunk(self::CHUNK) as $ids) {
                    DB::table($entity->value)->whereIn('id', $ids)->update([$column => null]);
                }
                $replaced = $changes->filter(fn (object $c): bool => $c->was_version !== null && (int) $c->was_none === 0)->map(fn (object $c): string => "$entity->value $c->row_id");
                foreach (StaleWords::of(array_values($replaced->take(50)->all())) as $name) {
                    $this->words[] = "$name: the $column from before cannot come back; print a new card or send a link";
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
