<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Closure;
use LogicException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entry;
use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Pointer;
use Vantrel\Core\Plan\RedoPlanner;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Relied;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Standing;
use Vantrel\Core\Plan\Stay;
use Vantrel\Core\Plan\Undo;
use Vantrel\Core\Plan\UndoPlanner;
use Vantrel\Core\Plan\Written;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Records\Unique;

/** The ledger as it should be, in memory: one thing at a time, every rule looked at after every write. */
final class MemoryHouse implements House, Standing
{
    /** @var array<string, array<string, Record>> */
    private array $tables = [];

    /**
     * @var array<int, array{action: Action, images: list<Change>, at: int, undoneAt: int|null, done: int}> by number;
     *     `done` when it was last done or done again
     */
    private array $ledger = [];

    private int $clock = 0;

    /** What the database gives a row that does not say it. */
    private const DEFAULTS = [
        'people' => [
            'preferred_name' => null,
            'language' => null,
            'email_state' => 'claimed',
            'email_by' => null,
            'email_at' => null,
            'pictures' => null,
        ],
        'sign_ins' => ['last_signed_in_at' => null, 'temporary' => 0, 'unproven' => 0],
        'sections' => ['period' => null, 'seats' => null, 'archived_on' => null, 'carried_from' => null],
        'enrollments' => ['join_code_id' => null, 'came_at' => null],
        'guardianships' => ['relationship' => null, 'restriction' => null, 'state_at' => null, 'state_by' => null],
        'badges' => ['ended_at' => null],
        'join_codes' => [
            'who' => 'approval',
            'starts_at' => null,
            'ends_at' => null,
            'cap' => null,
            'closed_at' => null,
        ],
    ];

    /** @param  array<string, string>  $schools */
    public function __construct(Snapshot $beginning, private readonly array $schools)
    {
        foreach (Entity::cases() as $entity) {
            $this->tables[$entity->value] = $beginning->records($entity);
        }
    }

    public function snapshot(): Snapshot
    {
        return new Snapshot($this->tables, $this->schools);
    }

    public function apply(Plan $plan, Action $action): int
    {
        if ($plan->blockers !== []) {
            throw new Refusal($plan->blockers[0]);
        }
        $seq = count($this->ledger) + 1;
        $this->write($plan, $seq);
        $this->ledger[$seq] = [
            'action' => $action,
            'images' => array_map(self::image(...), $plan->changes),
            'at' => ++$this->clock,
            'undoneAt' => null,
            'done' => $this->clock,
        ];

        return $seq;
    }

    public function holding(array $rows, Closure $plan, Action $action): int
    {
        return $this->apply($plan(), $action);
    }

    /** @return list<Undo> what taking it back would come to, with what has to go back first where that is asked */
    public function outlook(int $seq, bool $together): array
    {
        $seqs = [$seq];
        do {
            $entries = array_map(
                fn(int $s): Entry => new Entry(
                    $s,
                    $this->ledger[$s]['done'],
                    $this->ledger[$s]['action'],
                    array_map(Written::of(...), $this->ledger[$s]['images']),
                ),
                $seqs,
            );
            $undos = UndoPlanner::together($entries, $this);
            $more = $together
                ? array_values(array_diff(array_merge(...array_map(fn(Undo $u): array => $u->first, $undos)), $seqs))
                : [];
            $seqs = array_values(array_unique([...$seqs, ...$more]));
            usort($seqs, fn(int $a, int $b): int => $this->ledger[$b]['done'] <=> $this->ledger[$a]['done']);
        } while ($more !== []);

        return $undos;
    }

    public function undo(int $seq, bool $together): array
    {
        $undos = $this->outlook($seq, $together);
        if (array_filter($undos, fn(Undo $u): bool => $u->blocked) !== []) {
            throw new Refusal('cannot go back by itself');
        }
        $why = [];
        foreach ($undos as $undo) {
            $this->putBack($undo);
            foreach ($undo->stays as $rows) {
                $why = [...$why, ...array_map(fn(Stay $s): string => $s->value, array_values($rows))];
            }
        }
        $this->mustFit();

        return array_values(array_unique($why));
    }

    public function redo(int $seq): void
    {
        $undoneAt = $this->ledger[$seq]['undoneAt'] ?? throw new LogicException('not undone');
        $now = [];
        foreach ($this->ledger[$seq]['images'] as $image) {
            $row = $this->tables[$image->entity->value][$image->id] ?? null;
            if ($row !== null) {
                $now["{$image->entity->value} $image->id"] = [
                    $row->version,
                    isset($this->ledger[$row->version]) && $this->ledger[$row->version]['at'] <= $undoneAt,
                ];
            }
        }
        $this->write(new Plan('again', '', RedoPlanner::plan($seq, $this->ledger[$seq]['images'], $now)), $seq);
        $this->ledger[$seq]['undoneAt'] = null;
        $this->ledger[$seq]['done'] = ++$this->clock;
    }

    public function signIn(string $signInId): void
    {
        $row = $this->tables['sign_ins'][$signInId];
        $this->tables['sign_ins'][$signInId] = new SignIn($row->id, $row->version, [
            ...$row->values,
            'last_signed_in_at' => Histories::NOW,
        ]);
    }

    public function entries(): array
    {
        $entries = $this->ledger;
        uasort($entries, fn(array $a, array $b): int => $a['done'] <=> $b['done']);

        return array_map(fn(array $e): bool => $e['undoneAt'] !== null, $entries);
    }

    public function versions(Entity $entity, array $ids): array
    {
        return array_map(
            fn(Record $r): int => $r->version,
            array_intersect_key($this->tables[$entity->value], array_flip($ids)),
        );
    }

    public function rows(string $kind, string $column, array $values): array
    {
        $entity = $kind::entity();

        return $column === 'id'
            ? array_intersect_key($this->tables[$entity->value], array_flip($values))
            : array_filter(
                $this->tables[$entity->value],
                fn(Record $r): bool => in_array($r->field($column), $values, true),
            );
    }

    public function rivals(Entity $entity, Unique $rule, array $wanted): array
    {
        $byKey = array_flip(array_filter(array_map($rule->key(...), $wanted), fn(?string $k): bool => $k !== null));
        $rivals = [];
        foreach ($this->tables[$entity->value] as $row) {
            $id = $byKey[$rule->key($row->values) ?? ''] ?? $row->id;
            if ($id !== $row->id) {
                $rivals[$id] = $row->id;
            }
        }

        return $rivals;
    }

    public function used(array $ids): array
    {
        return array_values(
            array_filter(
                $ids,
                fn(string $id): bool => isset($this->tables['sign_ins'][$id]) &&
                    $this->tables['sign_ins'][$id]->field('last_signed_in_at') !== null,
            ),
        );
    }

    public function referring(Entity $child, string $column, array $ids): array
    {
        return array_map(
            fn(Record $r): string => (string) $r->field($column),
            $this->rows($child->record(), $column, $ids),
        );
    }

    public function pointing(Entity $at, array $ids, int $but): array
    {
        $pointing = [];
        foreach (Entity::cases() as $child) {
            foreach ($child->references() as $column => $parent) {
                foreach ($parent === $at ? $this->rows($child->record(), $column, $ids) : [] as $row) {
                    if ($row->version !== $but) {
                        $pointing[] = new Pointer($child, $row->id, $column, (string) $row->field($column));
                    }
                }
            }
        }

        return $pointing;
    }

    public function held(Entity $entity, array $ids): array
    {
        return [];
    }

    public function writtenAfter(int $done, array $ids): array
    {
        $wanted = array_flip($ids);
        $later = array_filter(
            $this->ledger,
            fn(array $e): bool => $e['done'] > $done &&
                $e['undoneAt'] === null &&
                array_filter($e['images'], fn(Change $c): bool => isset($wanted[$c->id])) !== [],
        );
        uasort($later, fn(array $a, array $b): int => $b['done'] <=> $a['done']);

        return array_keys($later);
    }

    private function write(Plan $plan, int $seq): void
    {
        $stale = [];
        foreach ($plan->changes as $change) {
            if (($this->tables[$change->entity->value][$change->id] ?? null)?->version !== $change->version) {
                $stale[] = "{$change->entity->value} $change->id";
            }
        }
        foreach (Relied::on($plan) as $table => $ids) {
            foreach ($ids as $id => $opens) {
                $row = $this->tables[$table][$id] ?? null;
                if (Relied::fault(Entity::from($table), $row?->field('state'), $opens) !== null) {
                    $stale[] = "$table $id";
                }
            }
        }
        $stale = [...$stale, ...LooseEnds::of($plan, $this)];
        if ($stale !== []) {
            throw new StalePlan($stale);
        }
        $before = $this->tables;
        foreach ($plan->changes as $change) {
            $was = $this->tables[$change->entity->value][$change->id] ?? null;
            $this->tables[$change->entity->value][$change->id] = new ($change->entity->record())($change->id, $seq, [
                ...$was->values ?? (self::DEFAULTS[$change->entity->value] ?? []),
                ...$change->after,
            ]);
        }
        try {
            $this->mustFit();
        } catch (LogicException $e) {
            $this->tables = $before;
            throw new StalePlan([$e->getMessage()]);
        }
    }

    private function putBack(Undo $undo): void
    {
        foreach (array_reverse($this->ledger[$undo->seq]['images']) as $image) {
            if ($undo->keeps($image->entity, $image->id)) {
                continue;
            }
            if ($image->inserts()) {
                unset($this->tables[$image->entity->value][$image->id]);
            } else {
                $row = $this->tables[$image->entity->value][$image->id];
                $this->tables[$image->entity->value][$image->id] = new ($image->entity->record())(
                    $row->id,
                    (int) $image->version,
                    [...$row->values, ...$image->before],
                );
            }
        }
        foreach ($this->ledger[$undo->seq]['images'] as $image) {
            $row = $this->tables[$image->entity->value][$image->id] ?? null;
            $ended = array_intersect_key(
                array_fill_keys($image->entity->issued(), null),
                array_filter($image->after, fn(mixed $v): bool => $v !== null),
            );
            if ($row !== null && $ended !== []) {
                $this->tables[$image->entity->value][$image->id] = new ($image->entity->record())(
                    $row->id,
                    $row->version,
                    [...$row->values, ...$ended],
                );
            }
        }
        $this->ledger[$undo->seq]['undoneAt'] = ++$this->clock;
    }

    /** What the database's constraints see to. */
    private function mustFit(): void
    {
        foreach (Entity::cases() as $entity) {
            foreach ($entity->unique() as $rule) {
                $keys = array_filter(
                    array_map(
                        fn(Record $r): ?string => $rule->key($r->values),
                        array_values($this->tables[$entity->value]),
                    ),
                    fn(?string $k): bool => $k !== null,
                );
                if (count($keys) !== count(array_unique($keys))) {
                    throw new LogicException("$entity->value has two alike by " . implode(', ', $rule->columns));
                }
            }
            foreach ($entity->references() as $column => $to) {
                foreach ($this->tables[$entity->value] as $row) {
                    if (
                        $to !== Entity::School &&
                        $row->field($column) !== null &&
                        !isset($this->tables[$to->value][$row->field($column)])
                    ) {
                        throw new LogicException("$entity->value.$column points at nothing");
                    }
                }
            }
        }
    }

    /** As the ledger keeps it: no secret leaves a copy, and an absent one is kept as absent. */
    private static function image(Change $change): Change
    {
        $before = $change->before;
        $after = $change->after;
        foreach ($change->entity->secrets() as $column) {
            if (isset($before[$column])) {
                unset($before[$column]);
            }
            if (isset($after[$column])) {
                $after[$column] = '(secret)';
            }
        }

        return new Change($change->entity, $change->id, $change->version, $before, $after, $change->reason);
    }
}
