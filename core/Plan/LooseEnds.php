<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;

/**
 * What may not be left tied to an account that is merged into another, to a section that is archived, or to a year that
 * is over. A plan that ends something must have seen all of it: what came between the reading and the writing is found
 * here, whichever planner made the plan.
 */
final class LooseEnds
{
    private const OF = [
        [Entity::Person, 'merged_into', Entity::Person],
        [Entity::SignIn, 'person_id', Entity::Person],
        [Entity::Identity, 'person_id', Entity::Person],
        [Entity::Enrollment, 'person_id', Entity::Person],
        [Entity::Guardianship, 'student_id', Entity::Person],
        [Entity::Guardianship, 'guardian_id', Entity::Person],
        [Entity::Section, 'school_year_id', Entity::SchoolYear],
        [Entity::JoinCode, 'section_id', Entity::Section],
        [Entity::Invitation, 'section_id', Entity::Section],
        [Entity::JoinRequest, 'section_id', Entity::Section],
        [Entity::RoomPass, 'section_id', Entity::Section],
    ];

    /** @param  array<string, string|int|null>  $values */
    public static function isClosed(Entity $entity, array $values): bool
    {
        return match ($entity) {
            Entity::Person => ($values['state'] ?? null) === 'merged',
            Entity::Section => ($values['state'] ?? null) === 'archived',
            Entity::SchoolYear => ($values['state'] ?? null) === 'closed',
            default => false,
        };
    }

    /**
     * Whether a record, by this column, may not point at something closed.
     *
     * @param  array<string, string|int|null>  $values
     */
    public static function ties(Entity $entity, string $column, array $values): bool
    {
        return match (true) {
            $entity === Entity::Person => $column === 'merged_into',
            in_array($entity, [Entity::SignIn, Entity::Identity], true) => $column === 'person_id',
            // A span without a day counts nowhere.
            $entity === Entity::Enrollment => $column === 'person_id' &&
                (($values['ends_on'] ?? null) === null || $values['ends_on'] > ($values['begins_on'] ?? '')),
            $entity === Entity::Section => $column === 'school_year_id' && ($values['state'] ?? null) === 'open',
            $entity === Entity::Guardianship => in_array($column, ['student_id', 'guardian_id'], true),
            in_array($entity, [Entity::JoinCode, Entity::Invitation, Entity::JoinRequest, Entity::RoomPass], true)
                => $column === 'section_id' &&
                in_array($values['state'] ?? null, ['open', 'invited', 'waiting', 'mail', 'live'], true),
            default => false,
        };
    }

    /** @return list<string> `table id` of what the plan would leave tied to something it ends */
    public static function of(Plan $plan, Standing $now): array
    {
        $closing = $changes = [];
        foreach ($plan->changes as $change) {
            if (!$change->inserts() && self::isClosed($change->entity, $change->after)) {
                $closing[$change->entity->value][$change->id] = $change->after['merged_into'] ?? null;
            }
            $changes[$change->entity->value . $change->id] = $change->after;
        }
        $loose = [];
        foreach (self::OF as [$child, $column, $parent]) {
            $ended = $closing[$parent->value] ?? [];
            foreach (
                $ended === [] ? [] : $now->rows($child->record(), $column, array_map(strval(...), array_keys($ended)))
                as $row
            ) {
                $values = [...$row->values, ...$changes[$child->value . $row->id] ?? []];
                if (array_key_exists((string) $values[$column], $ended) && self::ties($child, $column, $values)) {
                    $loose["$child->value $row->id"] = $values;
                }
            }
        }

        return array_map(
            strval(...),
            array_keys(self::withoutTwins($loose, $closing[Entity::Person->value] ?? [], $changes, $now)),
        );
    }

    /**
     * What both accounts have in common, a guardian or a child, stays listed with the one that goes: the one that stays
     * has the same.
     *
     * @param  array<string, array<string, string|int|null>>  $loose
     * @param  array<string, string|int|null>  $into id of each account that goes, to the one that stays
     * @param  array<string, array<string, string|int|null>>  $changes
     * @return array<string, array<string, string|int|null>>
     */
    private static function withoutTwins(array $loose, array $into, array $changes, Standing $now): array
    {
        $prefix = Entity::Guardianship->value . ' ';
        $becomes = fn(string|int|null $id): string => (string) ($into[(string) $id] ?? $id);
        $pair = fn(string|int|null $student, string|int|null $guardian): string => $becomes($student) .
            ' ' .
            $becomes($guardian);
        $theirs = array_filter($loose, fn(string $key): bool => str_starts_with($key, $prefix), ARRAY_FILTER_USE_KEY);
        $students = array_map(fn(array $values): string => $becomes($values['student_id']), array_values($theirs));
        $has = [];
        foreach ($now->rows(Guardianship::class, 'student_id', array_values(array_unique($students))) as $row) {
            if (!isset($theirs[$prefix . $row->id])) {
                $values = [...$row->values, ...$changes[Entity::Guardianship->value . $row->id] ?? []];
                $has[$pair($values['student_id'], $values['guardian_id'])] = true;
            }
        }

        return array_filter(
            $loose,
            fn(array $values, string $key): bool => !isset($theirs[$key]) ||
                !isset($has[$pair($values['student_id'], $values['guardian_id'])]),
            ARRAY_FILTER_USE_BOTH,
        );
    }
}
