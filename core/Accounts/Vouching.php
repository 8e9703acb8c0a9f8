<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Person;

/**
 * Who says that an address is somebody's, and how far that counts. A followed link and the provider of a single sign-on
 * show it, and count everywhere. A school vouches for the mailboxes it hands out: that counts in that school, and opens
 * nothing at another. All else is a claim.
 */
final class Vouching
{
    /** Whether the owner of the address has shown it: by a link that was followed, or by a provider that says so. */
    public static function hasShown(Person $person): bool
    {
        return self::isShown($person->emailState(), self::source($person));
    }

    private static function isShown(AddressState $state, ?AddressSource $by): bool
    {
        return $state === AddressState::Confirmed && ($by === AddressSource::Mail || $by === AddressSource::SignOn);
    }

    /**
     * Whether the address of somebody counts in a school.
     *
     * @param  string  $home school of the person: the one that vouches where a school does
     */
    public static function countsIn(string $school, string $home, AddressState $state, ?AddressSource $by): bool
    {
        return self::isShown($state, $by) || ($state === AddressState::Confirmed && $home === $school);
    }

    public static function personCountsIn(string $school, Person $person): bool
    {
        return $person->email() !== null &&
            self::countsIn($school, $person->schoolId(), $person->emailState(), self::source($person));
    }

    private static function source(Person $person): ?AddressSource
    {
        return AddressSource::tryFrom((string) $person->field('email_by'));
    }
}
