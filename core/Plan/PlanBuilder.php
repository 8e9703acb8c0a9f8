<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use LogicException;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;

/**
 * Collects changes while a plan is made. Several updates of one record become one change; an update that
 * changes nothing vanishes; an update of a record the plan itself inserts is folded into the insert.
 */
final class PlanBuilder
{
    /** @var array<string, Change> */
    private array $changes = [];

    /** @var list<PlanRow> */
    private array $rows = [];

    /** @var list<Question> */
    private array $questions = [];

    /** @var list<string> */
    private array $warnings = [];

    /** @var list<string> */
    private array $blockers = [];

    /** @param  array<string, string|int|null>  $values */
    public function insert(Entity $entity, string $id, array $values, string $reason, ?int $row = null): void
    {
        $key = $entity->value . $id;
        if (isset($this->changes[$key])) {
            throw new LogicException("{$entity->value} $id is already in the plan.");
        }
        $this->changes[$key] = new Change($entity, $id, null, [], $values, $reason, $row);
    }

    /** @param  array<string, string|int|null>  $values */
    public function update(Record $current, array $values, string $reason, ?int $row = null): void
    {
        $entity = $current::entity();
        $key = $entity->value . $current->id;
        $known = $this->changes[$key] ?? null;
        if ($known !== null && $known->inserts()) {
            $this->amend($entity, $current->id, $values);

            return;
        }
        $after = [...$known->after ?? [], ...$values];
        $before = [];
        foreach ($after as $column => $value) {
            $was = $current->values[$column] ?? null;
            if ($was === $value) {
                unset($after[$column]);
            } else {
                $before[$column] = $was;
            }
        }
        if ($after === []) {
            unset($this->changes[$key]);

            return;
        }
        $this->changes[$key] = new Change(
            $entity,
            $current->id,
            $current->version,
            $before,
            $after,
            $known->reason ?? $reason,
            $row,
        );
    }

    /**
     * Other values for a record the plan itself inserts.
     *
     * @param  array<string, string|int|null>  $values
     */
    public function amend(Entity $entity, string $id, array $values): void
    {
        $known = $this->changes[$entity->value . $id] ?? null;
        if ($known === null || !$known->inserts()) {
            throw new LogicException("The plan inserts no {$entity->value} $id.");
        }
        $this->changes[$entity->value . $id] = new Change(
            $entity,
            $id,
            null,
            [],
            [...$known->after, ...$values],
            $known->reason,
            $known->row,
        );
    }

    public function changes(Entity $entity, string $id): bool
    {
        return isset($this->changes[$entity->value . $id]);
    }

    public function row(PlanRow $row): void
    {
        $this->rows[] = $row;
    }

    public function ask(Question $question): void
    {
        $this->questions[] = $question;
    }

    public function warn(string $sentence): void
    {
        $this->warnings[] = $sentence;
    }

    public function block(string $sentence): void
    {
        $this->blockers[] = $sentence;
    }

    public function count(Entity $entity, bool $inserts): int
    {
        return count(
            array_filter($this->changes, fn(Change $c): bool => $c->entity === $entity && $c->inserts() === $inserts),
        );
    }

    /** @param  list<Tally>  $tallies */
    public function build(string $title, string $sentence, array $tallies = []): Plan
    {
        return new Plan(
            $title,
            $sentence,
            array_values($this->changes),
            $this->rows,
            $this->questions,
            $this->warnings,
            $this->blockers,
            $tallies,
        );
    }
}
