<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Changes of one person's address by themselves. */
final class Addresses
{
    /** @param  string  $now UTC instant */
    public static function confirm(Row $person, AddressSource $by, string $now): Plan
    {
        $address = $person->maybe('email') ?? throw new Refusal('There is no address to confirm.');
        $plan = new PlanBuilder;
        $plan->update(Entity::Person, $person, Address::confirmed($address, $by, $now)->columns(), $by->label());

        return $plan->build("Address of {$person->text('given_name')} {$person->text('family_name')}", "$address is confirmed: {$by->label()}.");
    }
}
