<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\BadgeState;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\LiveState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SignIn;

/**
 * Ending ways to sign in: one, or all a person has. Sessions opened by what has ended end with it. User names stay for
 * ever.
 */
final class Credentials
{
    /**
     * Where a link goes by which somebody chooses a password, and for which of their user names: the first.
     *
     * @param  list<SignIn>  $signIns of the person
     * @return array{SignIn, string} the user name, and the address
     *
     * @throws Refusal for who signs in by a card, and where there is nothing to send it to
     */
    public static function linkTo(Person $person, array $signIns): array
    {
        usort($signIns, fn(SignIn $a, SignIn $b): int => $a->id <=> $b->id);
        if (
            $person->state() !== PersonState::Active ||
            $person->kind() === PersonKind::Student ||
            $person->email() === null ||
            $signIns === []
        ) {
            throw new Refusal(
                'A link is for staff and guardians who have a user name and an address. Print a card for a student.',
            );
        }

        return [$signIns[0], $person->email()];
    }

    /**
     * A password for the first sign-in, printed for somebody whom no mail reaches; it must be changed there. Only an
     * account that nobody has opened can have one: whoever prints it could open it too.
     *
     * @param  list<SignIn>  $signIns of the person
     * @param  bool  $opened whether anybody has ever signed in to it
     * @param  bool  $coordinates whether they coordinate a school
     * @param  string  $hash of the password
     *
     * @throws Refusal saying what to do instead
     */
    public static function temporary(
        Person $person,
        array $signIns,
        bool $opened,
        bool $coordinates,
        string $hash,
    ): Plan {
        usort($signIns, fn(SignIn $a, SignIn $b): int => $a->id <=> $b->id);
        $signIn = $signIns[0] ?? null;
        if ($person->kind() === PersonKind::Student || $person->state() !== PersonState::Active || $signIn === null) {
            throw new Refusal('A slip is for staff and guardians who have a user name. Print a card for a student.');
        }
        if ($opened || $coordinates) {
            throw new Refusal(
                $coordinates
                    ? 'Who coordinates a school opens their account by a link to their own mail.'
                    : 'This account has been opened before: its owner can have a link sent for another password.',
            );
        }
        $plan = new PlanBuilder();
        $plan->update($signIn, ['password' => $hash, 'passphrase' => null, 'temporary' => 1], 'slip printed');

        return $plan->build(
            "Slip for {$signIn->userName()}",
            "Prints a password for the first sign-in of {$person->fullName()}, who changes it there.",
        );
    }

    /** The password or passphrase of a user name; a new card or a link gives another. */
    public static function endSecret(SignIn $signIn): Plan
    {
        if ($signIn->password() === null && $signIn->passphrase() === null) {
            throw new Refusal('There is nothing to end: this user name has no password and no passphrase.');
        }
        $plan = new PlanBuilder();
        self::closeSecret($plan, $signIn, 'ended by hand');

        return $plan->build(
            "Secret of {$signIn->userName()} ended",
            "The password or passphrase of {$signIn->userName()} stops working at once. It cannot be brought " .
                'back; a new card or a link gives another.',
        );
    }

    /** @param  string  $now UTC instant */
    public static function endBadge(Badge $badge, string $name, string $now): Plan
    {
        if ($badge->state() !== BadgeState::Live) {
            throw new Refusal('That card does not work any more.');
        }
        $plan = new PlanBuilder();
        self::closeBadge($plan, $badge, $now, 'ended by hand');

        return $plan->build(
            "A card of $name ended",
            "One printed card of $name stops signing in at once; others go on working.",
        );
    }

    /** @param  string  $now UTC instant */
    public static function endIdentity(Identity $identity, string $name, string $now): Plan
    {
        if ($identity->state() !== LiveState::Live) {
            throw new Refusal('That sign-on has been ended already.');
        }
        $plan = new PlanBuilder();
        self::closeIdentity($plan, $identity, $now, 'ended by hand');

        return $plan->build(
            "School sign-on of $name ended",
            "The school’s sign-on does not lead to the account of $name any more.",
        );
    }

    /**
     * @param  list<SignIn>  $signIns of the person
     * @param  list<Badge>  $badges of these
     * @param  list<Identity>  $identities of the person
     * @param  string  $now UTC instant
     */
    public static function endAll(Person $person, array $signIns, array $badges, array $identities, string $now): Plan
    {
        $plan = new PlanBuilder();
        $ended = self::closeAll($plan, $signIns, $badges, $identities, $now, 'all ended by hand');
        $name = trim("{$person->givenName()} {$person->familyName()}");

        return $plan->build(
            "Every way to sign in of $name ended",
            $ended === []
                ? "$name had no password and no card; open sessions end."
                : 'Ends ' . Words::join($ended) . " of $name at once, with every open session. User names stay.",
        );
    }

    /**
     * @param  list<SignIn>  $signIns
     * @param  list<Badge>  $badges
     * @param  list<Identity>  $identities
     * @return list<string> what ends, counted, in words
     */
    public static function closeAll(
        PlanBuilder $plan,
        array $signIns,
        array $badges,
        array $identities,
        string $now,
        string $reason,
    ): array {
        $signIns = array_values(
            array_filter($signIns, fn(SignIn $s): bool => $s->password() !== null || $s->passphrase() !== null),
        );
        $badges = array_values(array_filter($badges, fn(Badge $b): bool => $b->state() === BadgeState::Live));
        $identities = array_values(array_filter($identities, fn(Identity $i): bool => $i->state() === LiveState::Live));
        foreach ($signIns as $signIn) {
            self::closeSecret($plan, $signIn, $reason);
        }
        foreach ($badges as $badge) {
            self::closeBadge($plan, $badge, $now, $reason);
        }
        foreach ($identities as $identity) {
            self::closeIdentity($plan, $identity, $now, $reason);
        }

        return array_values(
            array_filter(
                [
                    $signIns === []
                        ? ''
                        : Words::count(count($signIns), 'password or passphrase', 'passwords or passphrases'),
                    $badges === [] ? '' : Words::count(count($badges), 'card'),
                    $identities === [] ? '' : Words::count(count($identities), 'school sign-on'),
                ],
                fn(string $w): bool => $w !== '',
            ),
        );
    }

    private static function closeSecret(PlanBuilder $plan, SignIn $signIn, string $reason): void
    {
        $plan->update($signIn, ['password' => null, 'passphrase' => null, 'temporary' => 0, 'unproven' => 0], $reason);
    }

    private static function closeBadge(PlanBuilder $plan, Badge $badge, string $now, string $reason): void
    {
        $plan->update($badge, ['state' => 'lost', 'ended_at' => $now], $reason);
    }

    private static function closeIdentity(PlanBuilder $plan, Identity $identity, string $now, string $reason): void
    {
        $plan->update($identity, ['state' => 'ended', 'ended_at' => $now], $reason);
    }
}
