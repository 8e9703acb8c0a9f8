<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;

/** The names by which a provider of single sign-on knows people. */
final class Identities
{
    /**
     * @param  string  $issuer of the provider
     * @param  string  $subject its name for the person, which never goes to another
     * @param  string  $now UTC instant
     */
    public static function link(
        string $personId,
        string $name,
        string $issuer,
        string $subject,
        Ids $ids,
        string $now,
    ): Plan {
        $plan = new PlanBuilder();
        $plan->insert(
            Entity::Identity,
            $ids->for('identity', $issuer, $subject),
            [
                'person_id' => $personId,
                'issuer' => $issuer,
                'subject' => $subject,
                'state' => 'live',
                'made_at' => $now,
                'ended_at' => null,
            ],
            'first sign-in there',
        );

        return $plan->build("School sign-on of $name", "$name signs in with the school’s sign-on from now on.");
    }
}
