<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\LiveState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;

/**
 * Whose account a sign-on of the school's provider opens. From the second time on by the provider's own name for the
 * person, whatever the address. The first time by an address that the provider has verified and that is confirmed
 * here, compared byte by byte; and only where the account has no other sign-on there: an address that is given to
 * somebody else brings them no account that was another's.
 */
final class SignOnMatch
{
    /**
     * @param  Identity|null  $known by the provider's name for the person
     * @param  list<Person>  $atAddress who have the verified address, none where it is not verified
     * @param  list<Identity>  $theirs the identities these have with the provider
     * @return string id of the person
     *
     * @throws Refusal in words for whoever came back from there
     */
    public static function personId(?Identity $known, array $atAddress, array $theirs): string
    {
        if ($known !== null) {
            return $known->state() === LiveState::Live
                ? $known->personId()
                : throw new Refusal('This sign-on was ended here. Ask the coordinator.');
        }
        $people = array_values(
            array_filter(
                $atAddress,
                fn(Person $p): bool => $p->state() === PersonState::Active &&
                    $p->kind() !== PersonKind::Guardian &&
                    $p->emailState() === AddressState::Confirmed,
            ),
        );
        // Whose owner has shown it comes before whom a school says it belongs to.
        $shown = array_values(array_filter($people, Vouching::hasShown(...)));
        $people = count($shown) === 1 ? $shown : $people;
        if (count($people) !== 1) {
            throw new Refusal(
                'The school’s sign-on knows you, but there is no account here with that address. Ask the coordinator.',
            );
        }
        foreach ($theirs as $identity) {
            if ($identity->personId() === $people[0]->id && $identity->state() === LiveState::Live) {
                throw new Refusal(
                    'The account here with that address belongs to another sign-on of the school. Ask the ' .
                        'coordinator to end that one first.',
                );
            }
        }

        return $people[0]->id;
    }

    /** @throws Refusal where the account opens for nobody */
    public static function mustBeOpen(Person $person): void
    {
        if ($person->state() !== PersonState::Active) {
            throw new Refusal('This account is closed: its owner has left the school. Ask the school office.');
        }
    }
}
