<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;

/**
 * The records a plan is made from, as they stood at one moment. Never changed: applying a plan gives another snapshot.
 */
final readonly class Snapshot
{
    /**
     * @param  array<string, array<string, Record>>  $tables table to id to record
     * @param  array<string, string>  $schools id to name; schools themselves are not changed by plans
     */
    public function __construct(private array $tables = [], public array $schools = []) {}

    /** @return array<string, Record> id to record of a kind that is known at run time only */
    public function records(Entity $entity): array
    {
        return $this->tables[$entity->value] ?? [];
    }

    /**
     * @template T of Record
     *
     * @param  class-string<T>  $kind
     * @return array<string, T> id to record
     */
    public function all(string $kind): array
    {
        /** @var array<string, T> */
        return $this->tables[$kind::entity()->value] ?? [];
    }

    /**
     * @template T of Record
     *
     * @param  class-string<T>  $kind
     * @return T|null
     */
    public function find(string $kind, ?string $id): ?Record
    {
        return $id === null ? null : $this->all($kind)[$id] ?? null;
    }

    /**
     * @template T of Record
     *
     * @param  class-string<T>  $kind
     * @return list<T> records whose column holds the value
     */
    public function where(string $kind, string $column, string|int|null $value): array
    {
        return array_values(
            array_filter($this->all($kind), fn(Record $record): bool => ($record->values[$column] ?? null) === $value),
        );
    }

    /**
     * Records by the value of one column, for joining in memory.
     *
     * @template T of Record
     *
     * @param  class-string<T>  $kind
     * @return array<string, list<T>>
     */
    public function by(string $kind, string $column): array
    {
        $groups = [];
        foreach ($this->all($kind) as $record) {
            $groups[(string) ($record->values[$column] ?? '')][] = $record;
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
            if ($current?->version !== $change->version) {
                throw new StalePlan([$change->entity->value . ' ' . $change->id]);
            }
            $tables[$change->entity->value][$change->id] =
                $current === null ? self::record($change, 1, $change->after) : $current->with($change->after);
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
                $tables[$change->entity->value][$change->id] = self::record($change, $change->version, [
                    ...$row->values,
                    ...$change->before,
                ]);
            }
        }

        return new self(array_filter($tables, fn(array $rows): bool => $rows !== []), $this->schools);
    }

    /** @param  array<string, string|int|null>  $values */
    private static function record(Change $change, int $version, array $values): Record
    {
        $kind = $change->entity->record();

        return new $kind($change->id, $version, $values);
    }
}
