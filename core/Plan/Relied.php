<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/**
 * What a plan relies on besides the rows it changes: the people, sections and years it refers to must still stand as
 * they did. Read off the plan itself, so that no planner can leave something out. That other rows are still there, the
 * database's own foreign keys see to.
 */
final class Relied
{
    /**
     * @return array<string, array<string, bool>> table to ids the plan refers to and does not make itself, and whether
     *     a section or a year among them has to be open, since something new comes into it
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
                if (
                    in_array($to, [Entity::Person, Entity::Section, Entity::SchoolYear], true) &&
                    is_string($id) &&
                    $id !== '' &&
                    !isset($made[$to->value][$id])
                ) {
                    $opens =
                        in_array($column, ['section_id', 'school_year_id'], true) &&
                        ($change->inserts() || isset($change->before[$column]));
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
     * Why something cannot be tied to a row as it is now; null where it can.
     *
     * @param  string|null  $state of the row; null where it is gone
     * @param  bool  $opens whether something new comes into it
     */
    public static function fault(Entity $entity, ?string $state, bool $opens): ?string
    {
        return match (true) {
            $state === null => 'is gone',
            $entity === Entity::Person && $state === 'merged' => 'has been merged into another account',
            $entity === Entity::Section && $opens && $state !== 'open' => 'has been archived',
            $entity === Entity::SchoolYear && $opens && $state === 'closed' => 'is over',
            default => null,
        };
    }
}
