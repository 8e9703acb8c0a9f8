<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Records\Entity;

/** The names by which a provider of single sign-on knows people. */
final class Identities
{
    /**
     * @param  string  $issuer of the provider
     * @param  string  $subject its name for the person, which never goes to another
     * @param  string  $now UTC instant
     * @return Planned<string> the id of the name
     */
    public static function link(
        string $personId,
        string $name,
        string $issuer,
        string $subject,
        Ids $ids,
        string $now,
    ): Planned {
        $plan = new PlanBuilder();
        $id = $ids->for('identity', $issuer, $subject);
        $plan->insert(
            Entity::Identity,
            $id,
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

        return new Planned(
            $plan->build("School sign-on of $name", "$name signs in with the school’s sign-on from now on."),
            $id,
        );
    }
}
