<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\Unique;

/**
 * The records as they will stand once an entry has been taken back, so that an older one can be looked at before
 * anything is done.
 */
final readonly class StandingAfter implements Standing
{
    /** @var array<string, array<string, Written>> table to id, of what went back */
    private array $back;

    public function __construct(private Standing $before, private Undo $undo, Entry $entry)
    {
        $back = [];
        foreach ($entry->written as $written) {
            if (!$undo->keeps($written->entity, $written->id)) {
                $back[$written->entity->value][$written->id] = $written;
            }
        }
        $this->back = $back;
    }

    public function versions(Entity $entity, array $ids): array
    {
        $versions = $this->before->versions($entity, $ids);
        foreach ($ids as $id) {
            $back = $this->back[$entity->value][$id] ?? null;
            if ($back?->wasVersion !== null) {
                $versions[$id] = $back->wasVersion;
            } elseif ($back !== null) {
                unset($versions[$id]);
            }
        }

        return $versions;
    }

    public function rows(string $kind, string $column, array $values): array
    {
        $entity = $kind::entity();
        $rows = $this->before->rows($kind, $column, $values);
        foreach ($rows as $id => $row) {
            $back = $this->back[$entity->value][$id] ?? null;
            if ($back?->inserts() === true) {
                unset($rows[$id]);
            } elseif ($back !== null) {
                $rows[$id] = new $kind($row->id, (int) $back->wasVersion, [...$row->values, ...$back->back]);
            }
        }
        if ($column === 'id') {
            return $rows;
        }
        $wanted = array_flip($values);
        $rows = array_filter($rows, fn(Record $row): bool => isset($wanted[(string) $row->field($column)]));
        $turned = array_filter(
            $this->back[$entity->value] ?? [],
            fn(Written $w): bool => isset($w->back[$column]) && isset($wanted[(string) $w->back[$column]]),
        );

        return $turned === [] ? $rows : $rows + $this->rows($kind, 'id', array_map(strval(...), array_keys($turned)));
    }

    public function rivals(Entity $entity, Unique $rule, array $wanted): array
    {
        $keys = array_filter(array_map($rule->key(...), $wanted), fn(?string $key): bool => $key !== null);
        $rivals = $this->before->rivals($entity, $rule, $wanted);
        $standing = $this->rows($entity->record(), 'id', array_values($rivals));
        $rivals = array_filter(
            $rivals,
            fn(string $rival, string $id): bool => isset($standing[$rival]) &&
                $rule->key($standing[$rival]->values) === ($keys[$id] ?? ''),
            ARRAY_FILTER_USE_BOTH,
        );
        // What has gone back may be in the way, too.
        $turned = array_filter(
            $this->back[$entity->value] ?? [],
            fn(Written $w): bool => array_intersect_key($w->back, array_flip($rule->bound())) !== [],
        );
        $byKey = array_flip($keys);
        foreach ($this->rows($entity->record(), 'id', array_map(strval(...), array_keys($turned))) as $row) {
            $id = $byKey[$rule->key($row->values) ?? ''] ?? null;
            if ($id !== null && $id !== $row->id) {
                $rivals[$id] = $row->id;
            }
        }

        return $rivals;
    }

    public function used(array $ids): array
    {
        return $this->before->used($this->there(Entity::SignIn, $ids));
    }

    public function referring(Entity $child, string $column, array $ids): array
    {
        $wanted = array_flip($ids);
        $found = $this->before->referring($child, $column, $ids);
        foreach ($this->back[$child->value] ?? [] as $id => $written) {
            if ($written->inserts()) {
                unset($found[$id]);
            } elseif (array_key_exists($column, $written->back)) {
                unset($found[$id]);
                $parent = (string) $written->back[$column];
                if (isset($wanted[$parent])) {
                    $found[$id] = $parent;
                }
            }
        }

        return $found;
    }

    public function pointing(Entity $at, array $ids, int $but): array
    {
        $pointing = array_values(
            array_filter($this->before->pointing($at, $ids, $but), function (Pointer $p) use ($but): bool {
                $back = $this->back[$p->child->value][$p->id] ?? null;

                return $back === null ||
                    (!$back->inserts() && $back->wasVersion !== $but && !array_key_exists($p->column, $back->back));
            }),
        );
        $wanted = array_flip($ids);
        foreach ($this->back as $table => $rows) {
            $child = Entity::from($table);
            foreach ($child->references() as $column => $parent) {
                foreach ($parent === $at ? $rows : [] as $id => $written) {
                    $to = (string) ($written->back[$column] ?? '');
                    if (isset($wanted[$to]) && $written->wasVersion !== $but) {
                        $pointing[] = new Pointer($child, (string) $id, $column, $to);
                    }
                }
            }
        }

        return $pointing;
    }

    public function held(Entity $entity, array $ids): array
    {
        return $this->before->held($entity, $this->there($entity, $ids));
    }

    public function writtenAfter(int $done, array $ids): array
    {
        return array_values(
            array_filter($this->before->writtenAfter($done, $ids), fn(int $later): bool => $later !== $this->undo->seq),
        );
    }

    /**
     * @param  list<string>  $ids
     * @return list<string> without those that went
     */
    private function there(Entity $entity, array $ids): array
    {
        return array_values(
            array_filter(
                $ids,
                fn(string $id): bool => !(($this->back[$entity->value][$id] ?? null)?->inserts() ?? false),
            ),
        );
    }
}
