<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Person;

/** A guardian's own address or number, changed by themselves once it has answered. */
final class OwnContact
{
    /**
     * What has to answer too before it is replaced: the address or number that has been confirmed.
     *
     * @param  string  $what email or phone
     */
    public static function old(Person $person, string $what): ?string
    {
        return $what === 'email'
            ? (Address::isConfirmed($person)
                ? $person->email()
                : null)
            : ($person->phoneConfirmed()
                ? $person->phone()
                : null);
    }

    /**
     * @param  string  $what email or phone
     * @param  string  $value in its canonical form
     * @param  string  $now UTC instant
     */
    public static function change(Person $person, string $what, string $value, string $now): Plan
    {
        $plan = new PlanBuilder();
        $plan->update(
            $person,
            $what === 'email'
                ? Address::confirmed($value, AddressSource::Mail, $now)->columns()
                : ['phone' => $value, 'phone_confirmed' => $value],
            'changed by themselves',
        );

        return $plan->build(
            ($what === 'email' ? 'Address of ' : 'Number of ') . $person->fullName(),
            "{$person->fullName()} now has $value; it has answered.",
        );
    }
}
