<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;

/** Changes of one person's address by themselves. */
final class Addresses
{
    /** @param  string  $now UTC instant */
    public static function confirm(Person $person, AddressSource $by, string $now): Plan
    {
        $address = $person->email() ?? throw new Refusal('There is no address to confirm.');
        $plan = new PlanBuilder();
        $plan->update($person, Address::confirmed($address, $by, $now)->columns(), $by->label());

        return $plan->build(
            "Address of {$person->givenName()} {$person->familyName()}",
            "$address is confirmed: {$by->label()}.",
        );
    }

    /** Another address in place of the one there is, as the school has it. */
    public static function replace(Person $person, Address $address): Plan
    {
        $changes = $address->changes($person);
        if ($changes === []) {
            throw new Refusal('That is the address already.', 'email');
        }
        $plan = new PlanBuilder();
        $plan->update($person, $changes, 'another address');

        return $plan->build("Address of {$person->fullName()}", "{$person->fullName()} now has {$address->address}.");
    }
}
