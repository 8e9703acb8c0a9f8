<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/**
 * The records a plan is made from, as they stood at one moment. Never changed: applying a plan gives another snapshot.
 */
final readonly class Snapshot
{
    /**
     * @param  array<string, array<string, Row>>  $tables table to id to row
     * @param  array<string, string>  $schools id to name; schools themselves are not changed by plans
     */
    public function __construct(private array $tables = [], public array $schools = [])
    {
    }

    /** @return array<string, Row> id to row */
    public function all(Entity $entity): array
    {
        return $this->tables[$entity->value] ?? [];
    }

    public function find(Entity $entity, ?string $id): ?Row
    {
        return $id === null ? null : ($this->tables[$entity->value][$id] ?? null);
    }

    /** @return list<Row> rows whose column holds the value */
    public function where(Entity $entity, string $column, string|int|null $value): array
    {
        $found = [];
        foreach ($this->tables[$entity->value] ?? [] as $row) {
            if (($row->values[$column] ?? null) === $value) {
                $found[] = $row;
            }
        }

        return $found;
    }

    /**
     * Rows by the value of one column, for joining in memory.
     *
     * @return array<string, list<Row>>
     */
    public function by(Entity $entity, string $column): array
    {
        $groups = [];
        foreach ($this->tables[$entity->value] ?? [] as $row) {
            $groups[$row->text($column)][] = $row;
        }

        return $groups;
    }

    /**
     * The snapshot after the plan.
     *
     * @throws StalePlan where the plan was made from another state
     */
    public function with(Plan $plan): self
    {
        $tables = $this->tables;
        foreach ($plan->changes as $change) {
            $current = $tables[$change->entity->value][$change->id] ?? null;
            if (($current?->version) !== $change->version) {
                throw new StalePlan([$change->entity->value.' '.$change->id]);
            }
            $tables[$change->entity->value][$change->id] = $current === null
                ? new Row($change->id, 1, $change->after)
                : $current->with($change->after);
        }

        return new self($tables, $this->schools);
    }

    /** The snapshot before the plan, given the one after it: contents and versions as they were. */
    public function without(Plan $plan): self
    {
        $tables = $this->tables;
        foreach (array_reverse($plan->changes) as $change) {
            if ($change->version === null) {
                unset($tables[$change->entity->value][$change->id]);
            } else {
                $row = $tables[$change->entity->value][$change->id];
                $tables[$change->entity->value][$change->id] = new Row($change->id, $change->version, [...$row->values, ...$change->before]);
            }
        }

        return new self(array_filter($tables, fn (array $rows): bool => $rows !== []), $this->schools);
    }
}
