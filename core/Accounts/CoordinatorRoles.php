<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RoleState;

/** Who coordinates a school. */
final class CoordinatorRoles
{
    /** @param  Coordinator|null  $role they have or had at the school */
    public static function give(
        Person $person,
        string $schoolId,
        string $schoolName,
        ?Coordinator $role,
        Ids $ids,
    ): Plan {
        $name = trim("{$person->givenName()} {$person->familyName()}");
        if ($person->kind() !== PersonKind::Staff || $person->state() !== PersonState::Active) {
            throw new Refusal("$name does not work here: only staff coordinate a school.");
        }
        if ($role?->state() === RoleState::Active) {
            throw new Refusal("$name coordinates $schoolName already.");
        }
        $plan = new PlanBuilder();
        $role === null
            ? $plan->insert(
                Entity::Coordinator,
                $ids->for('coordinator', $person->id, $schoolId),
                ['person_id' => $person->id, 'school_id' => $schoolId, 'state' => 'active'],
                'made coordinator',
            )
            : $plan->update($role, ['state' => 'active'], 'coordinator again');

        return $plan->build("$name coordinates $schoolName", "$name may do everything at $schoolName from now on.");
    }
}
