<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Pointer;
use Vantrel\Core\Plan\Standing;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Unique;

/** The records as the database has them now. */
final readonly class RowsNow implements Standing
{
    private const CHUNK = 5000;

    /** So many ids are looked up one by one. */
    private const FEW = 100;

    /**
     * What points at records of plans from outside and holds them: somebody has worked with them. A test holds both
     * lists against the schema.
     */
    public const HOLD = [
        ['ledger_entries', 'actor_id', Entity::Person],
        ['ledger_entries', 'undone_by', Entity::Person],
        ['imports', 'actor_id', Entity::Person],
        ['match_weights', 'made_by', Entity::Person],
        ['record_sources', 'changed_by', Entity::Person],
        ['family_askings', 'answered_by', Entity::Person],
        ['held_askings', 'answered_by', Entity::Person],
        ['mailings', 'person_id', Entity::Person],
        ['mailings', 'section_id', Entity::Section],
        ['roster_keys', 'made_by', Entity::Person],
        ['roster_keys', 'ended_by', Entity::Person],
    ];

    /** What points at them and goes with them. */
    public const GO_WITH = [
        ['second_factors', 'person_id', Entity::Person],
        ['passkeys', 'person_id', Entity::Person],
        ['credential_uses', 'person_id', Entity::Person],
        ['password_resets', 'sign_in_id', Entity::SignIn],
        ['print_runs', 'person_id', Entity::Person],
        ['invite_runs', 'person_id', Entity::Person],
        ['contact_changes', 'person_id', Entity::Person],
        ['family_askings', 'person_id', Entity::Person],
        ['held_askings', 'student_id', Entity::Person],
        ['held_askings', 'guardian_id', Entity::Person],
        ['notice_seen', 'person_id', Entity::Person],
        ['notice_seen', 'notice_id', Entity::Notice],
        ['digest_choices', 'person_id', Entity::Person],
        ['digests_told', 'person_id', Entity::Person],
        ['guardian_outbox', 'invitation_id', Entity::GuardianInvitation],
        ['student_invitations_opened', 'invitation_id', Entity::StudentInvitation],
        ['print_runs', 'section_id', Entity::Section],
    ];

    /**
     * @param bool $locked whether what is read is locked until the transaction ends, so that it stays so; without, it
     *     is how things were when that began
     * @param array<string, array<string, int>> $versions table and id to version, of all that the entries wrote and
     *     that is there
     */
    public function __construct(private bool $locked, private array $versions = []) {}

    public function versions(Entity $entity, array $ids): array
    {
        return array_intersect_key($this->versions[$entity->value] ?? [], array_flip($ids));
    }

    public function rows(string $kind, string $column, array $values): array
    {
        $entity = $kind::entity();
        $rows = [];
        foreach (array_chunk($values, self::CHUNK) as $chunk) {
            foreach (
                $this->table($entity->value)
                    ->whereIn($column, $chunk)
                    ->get(['id', 'version', ...$entity->bound()])
                as $row
            ) {
                $rows[(string) $row->id] = new $kind((string) $row->id, (int) $row->version, (array) $row);
            }
        }

        return $rows;
    }

    public function rivals(Entity $entity, Unique $rule, array $wanted): array
    {
        $keys = array_filter(array_map($rule->key(...), $wanted), fn(?string $key): bool => $key !== null);
        $byKey = array_flip($keys);
        $rivals = [];
        foreach (array_chunk(array_intersect_key($wanted, $keys), self::CHUNK, true) as $chunk) {
            $query = $this->table($entity->value);
            foreach ($rule->columns as $column) {
                $query->whereIn($column, array_values(array_unique(array_column($chunk, $column))));
            }
            foreach ($query->get(['id', 'version', ...$entity->bound()]) as $row) {
                $id = $byKey[$rule->key((array) $row) ?? ''] ?? null;
                if ($id !== null && $id !== $row->id) {
                    $rivals[$id] = (string) $row->id;
                }
            }
        }

        return $rivals;
    }

    public function used(array $ids): array
    {
        return $ids === []
            ? []
            : array_values(
                array_intersect(
                    self::near($this->table('sign_ins'), 'id', $ids)
                        ->whereNotNull('last_signed_in_at')
                        ->pluck('id')
                        ->all(),
                    $ids,
                ),
            );
    }

    public function pointing(Entity $at, array $ids, int $but): array
    {
        $all = null;
        foreach (Entity::cases() as $child) {
            foreach ($child->references() as $column => $parent) {
                if ($parent === $at) {
                    $one = self::near($this->table($child->value), $column, $ids)
                        ->where('version', '!=', $but)
                        ->selectRaw("? AS child, id, ? AS `column`, $column AS `to`", [$child->value, $column]);
                    $all = $all?->unionAll($one) ?? $one;
                }
            }
        }
        $wanted = array_flip($ids);
        $pointing = [];
        foreach ($all === null || $ids === [] ? [] : $all->get() as $row) {
            if (isset($wanted[$row->to])) {
                $pointing[] = new Pointer(Entity::from($row->child), $row->id, $row->column, $row->to);
            }
        }

        return $pointing;
    }

    public function referring(Entity $child, string $column, array $ids): array
    {
        $found = [];
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            $found += $this->table($child->value)
                ->whereIn($column, $chunk)
                ->pluck($column, 'id')
                ->map(strval(...))
                ->all();
        }

        return $found;
    }

    public function held(Entity $entity, array $ids): array
    {
        $all = null;
        foreach (self::HOLD as [$table, $column, $of]) {
            if ($of === $entity) {
                $one = self::near($this->table($table), $column, $ids)
                    ->distinct()
                    ->select("$column as id");
                $all = $all?->unionAll($one) ?? $one;
            }
        }

        return $all === null || $ids === [] ? [] : array_values(array_intersect($ids, $all->pluck('id')->all()));
    }

    /**
     * @param  list<string>  $ids
     * @return list<array{string, string}> table and column of what goes with some records, where there is any
     */
    public static function goesWith(Entity $entity, array $ids): array
    {
        $all = null;
        foreach (self::GO_WITH as $i => [$table, $column, $of]) {
            if ($of === $entity) {
                $one = DB::query()
                    ->selectRaw("$i AS i")
                    ->whereExists(self::near(DB::table($table), $column, $ids));
                $all = $all?->unionAll($one) ?? $one;
            }
        }

        return $all === null
            ? []
            : array_values(
                $all->pluck('i')->map(fn(mixed $i): array => array_slice(self::GO_WITH[(int) $i], 0, 2))->all(),
            );
    }

    public function writtenAfter(int $done, array $ids): array
    {
        $later = [];
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            $later += $this->table('ledger_changes as c')
                ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
                ->whereIn('c.row_id', $chunk)
                ->whereRaw('COALESCE(e.redone_as, e.seq) > ?', [$done])
                ->whereNull('e.undone_at')
                ->where(self::stillUndoable(...))
                ->distinct()
                ->selectRaw('e.seq, COALESCE(e.redone_as, e.seq) AS done')
                ->pluck('seq', 'done')
                ->map(fn(mixed $s): int => (int) $s)
                ->all();
        }
        krsort($later);

        return array_values($later);
    }

    private function table(string $table): Builder
    {
        return $this->locked ? DB::table($table)->sharedLock() : DB::table($table);
    }

    /**
     * Rows whose column holds one of many ids, and perhaps some others: the ids of one plan share their time, so what
     * lies between the first and the last of them is little else, and one range is looked up instead of thousands.
     *
     * @param  list<string>  $ids
     */
    private static function near(Builder $query, string $column, array $ids): Builder
    {
        return count($ids) <= self::FEW
            ? $query->whereIn($column, $ids)
            : $query->whereBetween($column, [min($ids), max($ids)]);
    }

    /** Of entries (`e`): those that somebody could still undo. */
    private static function stillUndoable(Builder $query): void
    {
        $query->whereNull('e.cleared_at')->where(function (Builder $any): void {
            foreach (Action::cases() as $action) {
                if ($action->undoDays() !== null) {
                    $byDays[$action->undoDays()][] = $action->value;
                }
            }
            foreach ($byDays ?? [] as $days => $actions) {
                $any->orWhere(
                    fn(Builder $q) => $q
                        ->whereIn('e.action', $actions)
                        ->where('e.made_at', '>=', now()->subDays($days)->format('Y-m-d H:i:s')),
                );
            }
        });
    }
}
