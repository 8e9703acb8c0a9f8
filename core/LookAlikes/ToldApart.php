<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;

/** Notes that two accounts are two people: they are not shown as look-alikes again. */
final class ToldApart
{
    public static function plan(Person $a, Person $b, Ids $ids): Plan
    {
        $pair = [$a->id, $b->id];
        sort($pair);
        $plan = new PlanBuilder();
        $plan->insert(
            Entity::KnownApart,
            $ids->for('apart', ...$pair),
            ['left_id' => $pair[0], 'right_id' => $pair[1]],
            'told apart',
        );
        $name = fn(Person $p): string => $p->fullName();

        return $plan->build(
            "{$name($a)} and {$name($b)} told apart",
            "{$name($a)} and {$name($b)} are two people and are not asked about again.",
        );
    }
}
