<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Words;

/** Ending ways to sign in: one, or all a person has. Sessions opened by what has ended end with it. User names stay for ever. */
final class Credentials
{
    /** The password or passphrase of a user name; a new card or a link gives another. */
    public static function endSecret(Row $signIn): Plan
    {
        if ($signIn->maybe('password') === null && $signIn->maybe('passphrase') === null) {
            throw new Refusal('There is nothing to end: this user name has no password and no passphrase.');
        }
        $plan = new PlanBuilder;
        self::closeSecret($plan, $signIn, 'ended by hand');

        return $plan->build("Secret of {$signIn->text('user_name')} ended", "The password or passphrase of {$signIn->text('user_name')} stops working at once. It cannot be brought back; a new card or a link gives another.");
    }

    /** @param  string  $now UTC instant */
    public static function endBadge(Row $badge, string $name, string $now): Plan
    {
        if ($badge->text('state') !== 'live') {
            throw new Refusal('That card does not work any more.');
        }
        $plan = new PlanBuilder;
        self::closeBadge($plan, $badge, $now, 'ended by hand');

        return $plan->build("A card of $name ended", "One printed card of $name stops signing in at once; others go on working.");
    }

    /** @param  string  $now UTC instant */
    public static function endIdentity(Row $identity, string $name, string $now): Plan
    {
        if ($identity->text('state') !== 'live') {
            throw new Refusal('That sign-on has been ended already.');
        }
        $plan = new PlanBuilder;
        self::closeIdentity($plan, $identity, $now, 'ended by hand');

        return $plan->build("School sign-on of $name ended", "The school’s sign-on does not lead to the account of $name any more.");
    }

    /**
     * @param  list<Row>  $signIns of the person
     * @param  list<Row>  $badges of these
     * @param  list<Row>  $identities of the person
     * @param  string  $now UTC instant
     */
    public static function endAll(Row $person, array $signIns, array $badges, array $identities, string $now): Plan
    {
        $plan = new PlanBuilder;
        $ended = self::closeAll($plan, $signIns, $badges, $identities, $now, 'all ended by hand');
        $name = trim("{$person->text('given_name')} {$person->text('family_name')}");

        return $plan->build("Every way to sign in of $name ended", $ended === []
            ? "$name had no password and no card; open sessions end." : 'Ends '.Words::join($ended)." of $name at once, with every open session. User names stay.");
    }

    /**
     * @param  list<Row>  $signIns
     * @param  list<Row>  $badges
     * @param  list<Row>  $identities
     * @return list<string> what ends, counted, in words
     */
    public static function closeAll(PlanBuilder $plan, array $signIns, array $badges, array $identities, string $now, string $reason): array
    {
        $signIns = array_values(array_filter($signIns, fn (Row $s): bool => $s->maybe('password') !== null || $s->maybe('passphrase') !== null));
        $badges = array_values(array_filter($badges, fn (Row $b): bool => $b->text('state') === 'live'));
        $identities = array_values(array_filter($identities, fn (Row $i): bool => $i->text('state') === 'live'));
        foreach ($signIns as $signIn) {
            self::closeSecret($plan, $signIn, $reason);
        }
        foreach ($badges as $badge) {
            self::closeBadge($plan, $badge, $now, $reason);
        }
        foreach ($identities as $identity) {
            self::closeIdentity($plan, $identity, $now, $reason);
        }

        return array_values(array_filter([
            $signIns === [] ? '' : Words::count(count($signIns), 'password or passphrase', 'passwords or passphrases'),
            $badges === [] ? '' : Words::count(count($badges), 'card'),
            $identities === [] ? '' : Words::count(count($identities), 'school sign-on'),
        ], fn (string $w): bool => $w !== ''));
    }

    private static function closeSecret(PlanBuilder $plan, Row $signIn, string $reason): void
    {
        $plan->update(Entity::SignIn, $signIn, ['password' => null, 'passphrase' => null, 'temporary' => 0], $reason);
    }

    private static function closeBadge(PlanBuilder $plan, Row $badge, string $now, string $reason): void
    {
        $plan->update(Entity::Badge, $badge, ['state' => 'lost', 'ended_at' => $now], $reason);
    }

    private static function closeIdentity(PlanBuilder $plan, Row $identity, string $now, string $reason): void
    {
        $plan->update(Entity::Identity, $identity, ['state' => 'ended', 'ended_at' => $now], $reason);
    }
}
