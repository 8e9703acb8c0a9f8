<?php

declare(strict_types=1);

namespace Vantrel\Core\SignIn;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Row;

/** A person's own secrets: the password they choose, and the pictures a child taps. */
final class OwnPassword
{
    /** The printed passphrase ends with it. */
    public static function set(Row $signIn, string $hash): Plan
    {
        $plan = new PlanBuilder;
        $plan->update(Entity::SignIn, $signIn, ['password' => $hash, 'passphrase' => null, 'temporary' => 0], 'own password set');

        return $plan->build("Password of {$signIn->text('user_name')}", "{$signIn->text('user_name')} has a password of their own; the passphrase on the card ends.");
    }

    /** @param  string|null  $hash keyed hash of the three pictures; null forgets them, so that the child chooses again */
    public static function pictures(Row $person, ?string $hash): Plan
    {
        $name = trim("{$person->text('given_name')} {$person->text('family_name')}");
        $plan = new PlanBuilder;
        $plan->update(Entity::Person, $person, ['pictures' => $hash], $hash === null ? 'pictures forgotten' : 'pictures chosen');

        return $plan->build("Pictures of $name", $hash === null ? "$name chooses three pictures again." : "$name has chosen three pictures.");
    }
}
