<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Who coordinates a school. */
final class CoordinatorRoles
{
    /** @param  Row|null  $role they have or had at the school */
    public static function give(Row $person, string $schoolId, string $schoolName, ?Row $role, Ids $ids): Plan
    {
        $name = trim("{$person->text('given_name')} {$person->text('family_name')}");
        if ($person->text('kind') !== 'staff' || $person->text('state') !== 'active') {
            throw new Refusal("$name does not work here: only staff coordinate a school.");
        }
        if ($role?->text('state') === 'active') {
            throw new Refusal("$name coordinates $schoolName already.");
        }
        $plan = new PlanBuilder;
        $role === null ? $plan->insert(Entity::Coordinator, $ids->for('coordinator', $person->id, $schoolId), ['person_id' => $person->id, 'school_id' => $schoolId, 'state' => 'active'], 'made coordinator')
            : $plan->update(Entity::Coordinator, $role, ['state' => 'active'], 'coordinator again');

        return $plan->build("$name coordinates $schoolName", "$name may do everything at $schoolName from now on.");
    }
}
