<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** A person's own secrets: the password they choose, and the pictures a child taps. */
final class OwnSecrets
{
    /** The printed passphrase ends with it. */
    public static function set(SignIn $signIn, string $hash): Plan
    {
        $plan = new PlanBuilder();
        $plan->update($signIn, ['password' => $hash, 'passphrase' => null, 'temporary' => 0], 'own password set');

        return $plan->build(
            "Password of {$signIn->userName()}",
            "{$signIn->userName()} has a password of their own; the passphrase on the card ends.",
        );
    }

    /**
     * @param string|null $hash keyed hash of the three pictures; null forgets them, so that the child chooses again
     */
    public static function pictures(Person $person, ?string $hash): Plan
    {
        $name = trim("{$person->givenName()} {$person->familyName()}");
        $plan = new PlanBuilder();
        $plan->update($person, ['pictures' => $hash], $hash === null ? 'pictures forgotten' : 'pictures chosen');

        return $plan->build(
            "Pictures of $name",
            $hash === null ? "$name chooses three pictures again." : "$name has chosen three pictures.",
        );
    }
}
