<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;

/**
 * Works out what taking an entry back comes to. A record that was written again since, an inserted record that others
 * refer to by now, and an account that has been signed in to, stay; with them stays what they refer to, and what they
 * cannot be without.
 */
final class UndoPlanner
{
    /** Later entries that are named as having to be undone first. */
    private const FIRST = 500;

    /** @var array<string, array<string, Stay>> */
    private array $stays = [];

    /** @var array<string, array<string, Written>> table to id */
    private array $written = [];

    /** @var array<string, list<string>> table to ids of what the entry made */
    private array $made = [];

    /** @var array<string, true> ids of records of later entries that hold what this one made */
    private array $holders = [];

    /** @var list<Pointer>|null from elsewhere, at what the entry made; they are the same however much stays */
    private ?array $pointers = null;

    /** @var array<string, array<string, Stay>> of what stays, that whose references have been followed */
    private array $followed = [];

    private function __construct(private readonly Entry $entry, private readonly Standing $now)
    {
        foreach ($entry->written as $written) {
            $this->written[$written->entity->value][$written->id] = $written;
            if ($written->inserts()) {
                $this->made[$written->entity->value][] = $written->id;
            }
        }
    }

    /**
     * Several at once: each as it will be once those before it have gone back.
     *
     * @param  list<Entry>  $entries newest first
     * @return list<Undo> in the same order
     */
    public static function together(array $entries, Standing $now): array
    {
        $undos = [];
        foreach ($entries as $entry) {
            $undos[] = $undo = self::plan($entry, $now);
            $now = new StandingAfter($now, $undo, $entry);
        }

        return $undos;
    }

    public static function plan(Entry $entry, Standing $now): Undo
    {
        return (new self($entry, $now))->make();
    }

    private function make(): Undo
    {
        foreach ($this->written as $table => $rows) {
            $this->keepChanged(Entity::from($table), $rows);
        }
        $this->keep(Entity::SignIn, $this->now->used($this->made[Entity::SignIn->value] ?? []), Stay::SignedIn);
        foreach ($this->made as $table => $ids) {
            $this->keep(Entity::from($table), $this->now->held(Entity::from($table), $ids), Stay::Worked);
        }
        $this->keepMergedInto();
        do {
            $before = $this->count();
            $this->keepReferred();
            $this->keepNeeded();
            $this->keepUnfit();
        } while ($this->count() > $before);

        return new Undo(
            $this->entry->seq,
            $this->stays,
            count($this->entry->written) - $this->count(),
            $this->lost(),
            $this->first(),
            $this->isTorn(),
        );
    }

    /** @param  array<string, Written>  $rows by id */
    private function keepChanged(Entity $entity, array $rows): void
    {
        $ids = array_map(strval(...), array_keys($rows));
        $versions = $this->now->versions($entity, $ids);
        $this->keep(
            $entity,
            array_values(array_filter($ids, fn(string $id): bool => ($versions[$id] ?? null) !== $this->entry->seq)),
            Stay::Changed,
        );
    }

    /** What records from elsewhere refer to stays; and what a record of the entry's own that stays refers to. */
    private function keepReferred(): void
    {
        foreach ($this->pointers ??= $this->pointing() as $pointer) {
            // A row this entry wrote goes, or goes back to before it could refer to what the entry made.
            $mine = isset($this->written[$pointer->child->value][$pointer->id]);
            if (!$mine || isset($this->stays[$pointer->child->value][$pointer->id])) {
                $this->keep($pointer->child->references()[$pointer->column], [$pointer->to], Stay::InUse);
                if (!$mine) {
                    $this->holders[$pointer->id] = true;
                }
            }
        }
        foreach (array_reverse(Entity::cases()) as $child) {
            $stay = array_diff_key($this->stays[$child->value] ?? [], $this->followed[$child->value] ?? []);
            if ($stay === [] || $child->references() === []) {
                continue;
            }
            $this->followed[$child->value] = ($this->followed[$child->value] ?? []) + $stay;
            $rows = $this->now->rows($child->record(), 'id', array_map(strval(...), array_keys($stay)));
            foreach ($child->references() as $column => $parent) {
                $made = array_flip($this->made[$parent->value] ?? []);
                foreach ($rows as $row) {
                    $to = (string) $row->field($column);
                    if (isset($made[$to])) {
                        $this->keep($parent, [$to], Stay::InUse);
                    }
                }
            }
        }
    }

    /** @return list<Pointer> from elsewhere, at what the entry made */
    private function pointing(): array
    {
        $pointing = [];
        foreach ($this->made as $table => $ids) {
            array_push($pointing, ...$this->now->pointing(Entity::from($table), $ids, $this->entry->seq));
        }

        return $pointing;
    }

    /**
     * What a record that the entry made and that stays cannot be without stays with it: a student's user name, sections
     * and guardians.
     */
    private function keepNeeded(): void
    {
        foreach (Entity::cases() as $child) {
            foreach ($child->neededBy() as $column => $parent) {
                $kept = array_values(
                    array_filter(
                        $this->made[$parent->value] ?? [],
                        fn(string $id): bool => isset($this->stays[$parent->value][$id]),
                    ),
                );
                $children = array_map(strval(...), array_keys($this->now->referring($child, $column, $kept)));
                $this->keep(
                    $child,
                    array_values(
                        array_filter(
                            $children,
                            fn(string $id): bool => ($this->written[$child->value][$id] ?? null)?->inserts() ?? false,
                        ),
                    ),
                    Stay::Belongs,
                );
            }
        }
    }

    /**
     * Of accounts merged into one, the last goes back first: what the later ones had in common with it was left behind
     * on its account.
     */
    private function keepMergedInto(): void
    {
        $merged = array_filter($this->written[Entity::Person->value] ?? [], fn(Written $w): bool => $w->merges);
        $rows =
            $merged === [] ? [] : $this->now->rows(Person::class, 'id', array_map(strval(...), array_keys($merged)));
        $into = array_values(
            array_unique(array_filter(array_map(fn(Person $p): string => (string) $p->mergedInto(), $rows))),
        );
        $others =
            $into === []
                ? []
                : array_filter(
                    $this->now->rows(Person::class, 'merged_into', $into),
                    fn(Person $p): bool => $p->version !== $this->entry->seq,
                );
        $later =
            $others === []
                ? []
                : $this->now->writtenAfter($this->entry->done, array_map(strval(...), array_keys($others)));
        foreach ($others as $other) {
            if (in_array($other->version, $later, true)) {
                $this->holders[$other->id] = true;
                $this->keep(
                    Entity::Person,
                    array_values(
                        array_map(
                            fn(Person $p): string => $p->id,
                            array_filter(
                                $rows,
                                fn(Person $p): bool => (string) $p->mergedInto() === (string) $other->mergedInto(),
                            ),
                        ),
                    ),
                    Stay::InUse,
                );
            }
        }
    }

    /**
     * What would go back to where it has no place any more stays: a code would open what is archived, two would have
     * one number, or what it belonged to is gone.
     */
    private function keepUnfit(): void
    {
        foreach (Entity::cases() as $entity) {
            $turning = array_filter(
                $this->written[$entity->value] ?? [],
                fn(Written $w): bool => $w->back !== [] && !isset($this->stays[$entity->value][$w->id]),
            );
            if ($turning === []) {
                continue;
            }
            $wanted = [];
            foreach (
                $this->now->rows($entity->record(), 'id', array_map(strval(...), array_keys($turning)))
                as $id => $row
            ) {
                $wanted[$id] = [...$row->values, ...$turning[$id]->back];
            }
            $this->keepTaken($entity, $wanted);
            foreach ($entity->references() as $column => $parent) {
                $this->keepUprooted($entity, $column, $parent, $wanted);
            }
        }
    }

    /** @param  array<string, array<string, string|int|null>>  $wanted id to what it would be */
    private function keepTaken(Entity $entity, array $wanted): void
    {
        foreach ($entity->unique() as $rule) {
            foreach ($this->now->rivals($entity, $rule, $wanted) as $id => $rival) {
                $written = $this->written[$entity->value][$rival] ?? null;
                // One this entry wrote makes room as it goes back itself.
                if ($written === null || isset($this->stays[$entity->value][$rival])) {
                    $this->keep($entity, [$id], Stay::Taken);
                    if ($written === null) {
                        $this->holders[$rival] = true;
                    }
                }
            }
        }
    }

    /** @param  array<string, array<string, string|int|null>>  $wanted id to what it would be */
    private function keepUprooted(Entity $entity, string $column, Entity $parent, array $wanted): void
    {
        $to = [];
        foreach ($wanted as $id => $values) {
            if (isset($values[$column])) {
                $to[(string) $values[$column]][] = (string) $id;
            }
        }
        $ids = array_map(strval(...), array_keys($to));
        $there = $ids === [] ? [] : $this->now->rows($parent->record(), 'id', $ids);
        foreach ($to as $parentId => $children) {
            $row = $there[$parentId] ?? null;
            $written = $this->written[$parent->value][$parentId] ?? null;
            if ($row === null) {
                $this->keep(
                    $entity,
                    array_values(
                        array_filter(
                            $children,
                            fn(string $id): bool => array_key_exists(
                                $column,
                                $this->written[$entity->value][$id]->back,
                            ),
                        ),
                    ),
                    Stay::Gone,
                );
            } elseif (
                LooseEnds::isClosed($parent, $row->values) &&
                ($written === null || isset($this->stays[$parent->value][$parentId]))
            ) {
                foreach ($children as $id) {
                    if (LooseEnds::ties($entity, $column, $wanted[$id])) {
                        $this->keep($entity, [$id], Stay::Closed);
                        $this->holders[$parentId] = true;
                    }
                }
            }
        }
    }

    /** @param  list<string>  $ids */
    private function keep(Entity $entity, array $ids, Stay $why): void
    {
        foreach ($ids as $id) {
            $this->stays[$entity->value][$id] ??= $why;
        }
    }

    private function count(): int
    {
        return array_sum(array_map(count(...), $this->stays));
    }

    /** Whether what the entry is about would stay, so that the rest alone would make no sense. */
    private function isTorn(): bool
    {
        foreach ($this->entry->action->standsOn() as $entity) {
            foreach ($this->stays[$entity->value] ?? [] as $id => $why) {
                if ($entity !== Entity::Person || $this->written[$entity->value][$id]->merges) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<array{Entity, string, string}> */
    private function lost(): array
    {
        $lost = [];
        foreach ($this->entry->written as $written) {
            foreach ($written->replaced as $column) {
                $lost[] = [$written->entity, $written->id, $column];
            }
        }

        return $lost;
    }

    /** @return list<int> */
    private function first(): array
    {
        if ($this->count() === 0) {
            return [];
        }
        $ids = array_map(strval(...), array_keys($this->holders));
        foreach ($this->stays as $rows) {
            $ids = [...$ids, ...array_map(strval(...), array_keys($rows))];
        }

        return array_slice($this->now->writtenAfter($this->entry->done, $ids), 0, self::FIRST);
    }
}
