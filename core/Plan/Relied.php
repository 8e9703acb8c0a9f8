<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/**
 * What a plan relies on besides the rows it changes: the rows it refers to must still be there, and stand as they did. Read off the
 * plan itself, so that no planner can leave something out.
 */
final class Relied
{
    /**
     * @return array<string, array<string, bool>> table to ids the plan refers to and does not make itself, and whether a section among
     *                                            them has to be open, since something new comes into it
     */
    public static function on(Plan $plan): array
    {
        $made = [];
        foreach ($plan->changes as $change) {
            if ($change->inserts()) {
                $made[$change->entity->value][$change->id] = true;
            }
        }
        $relied = [];
        foreach ($plan->changes as $change) {
            foreach ($change->entity->references() as $column => $to) {
                $id = $change->after[$column] ?? null;
                if (is_string($id) && $id !== '' && ! isset($made[$to->value][$id])) {
                    $opens = $to === Entity::Section && $column === 'section_id' && ($change->inserts() || isset($change->before[$column]));
                    $relied[$to->value][$id] = ($relied[$to->value][$id] ?? false) || $opens;
                }
            }
        }
        ksort($relied);

        return array_map(function (array $ids): array {
            ksort($ids);

            return $ids;
        }, $relied);
    }

    /**
     * Columns of a row that say whether it stands.
     *
     * @return list<string>
     */
    public static function columns(Entity $entity): array
    {
        return match ($entity) {
            Entity::Person, Entity::Section => ['id', 'state'],
            default => ['id'],
        };
    }

    /**
     * Why something cannot be tied to a row as it is now; null where it can.
     *
     * @param  array<string, mixed>|null  $row with {@see columns()}; null where it is gone
     */
    public static function fault(Entity $entity, ?array $row, bool $opens): ?string
    {
        return match (true) {
            $row === null => 'is gone',
            $entity === Entity::Person && $row['state'] === 'merged' => 'has been merged into another account',
            $entity === Entity::Section && $opens && $row['state'] !== 'open' => 'has been archived',
            default => null,
        };
    }
}
