<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\GuardianInvitationState;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;

/**
 * What ties a guardian to a child, and its ends. The child's record stays as it is: only who may look at it changes.
 */
final class Ties
{
    /** Two accounts are one, and both were tied to the same child: the further of the two, and any restriction. */
    private const FURTHER = ['ended' => 0, 'refused' => 1, 'listed' => 2, 'invited' => 3, 'connected' => 4];

    /**
     * Columns of a tie that comes to a state.
     *
     * @param  string|null  $by who did it; null for a list or the program
     * @param  string  $now UTC instant
     * @return array<string, string|null>
     */
    public static function to(GuardianshipState $state, ?string $by, string $now): array
    {
        return ['state' => $state->value, 'state_at' => $now, 'state_by' => $by];
    }

    /**
     * @return array<string, string|null> what becomes of the first; empty where it stays
     */
    public static function united(Guardianship $stays, Guardianship $goes): array
    {
        $restriction = $stays->restriction() ?? $goes->restriction();
        $state = match (true) {
            $restriction !== null && $stays->state() === GuardianshipState::Connected => GuardianshipState::Ended,
            $restriction === null && self::FURTHER[$goes->state()->value] > self::FURTHER[$stays->state()->value]
                => $goes->state(),
            default => $stays->state(),
        };

        return array_filter(
            [
                'state' => $state === $stays->state() ? null : $state->value,
                'restriction' => $stays->restriction() === null ? $restriction : null,
            ],
            fn(?string $v): bool => $v !== null,
        );
    }

    /**
     * Ends a connection: from the next request on the guardian sees nothing of the child.
     *
     * @param  list<GuardianInvitation>  $invitations of the guardian at the school
     * @param  bool  $others whether other children at the school are invited with the same link
     * @param  string|null  $by null where the guardian leaves
     */
    public static function disconnect(
        Guardianship $link,
        Person $guardian,
        Person $student,
        array $invitations,
        bool $others,
        ?string $by,
        string $now,
    ): Plan {
        if ($link->state() === GuardianshipState::Ended) {
            throw new Refusal('That connection has ended already.');
        }
        $plan = new PlanBuilder();
        $plan->update($link, self::to(GuardianshipState::Ended, $by ?? $guardian->id, $now), 'disconnected');
        self::endLinks($plan, $invitations, $others, $now);
        $what = "{$guardian->fullName()} from {$student->fullName()}";

        return $plan->build(
            "Guardian disconnected: {$guardian->fullName()}",
            $by === null ? "{$guardian->fullName()} leaves {$student->fullName()}." : "Disconnects $what.",
        );
    }

    /**
     * @param  string  $why shown to those who coordinate the school, and to nobody else
     * @param  list<GuardianInvitation>  $invitations of the guardian at the school
     * @param  bool  $others whether other children at the school are invited with the same link
     */
    public static function restrict(
        Guardianship $link,
        Person $guardian,
        Person $student,
        string $why,
        array $invitations,
        bool $others,
        string $by,
        string $now,
    ): Plan {
        if (trim($why) === '') {
            throw new Refusal('Say why, for whoever has to answer for it.', 'why');
        }
        $plan = new PlanBuilder();
        $state = match ($link->state()) {
            GuardianshipState::Connected => self::to(GuardianshipState::Ended, $by, $now),
            GuardianshipState::Invited => self::to(GuardianshipState::Listed, $by, $now),
            default => [],
        };
        $plan->update($link, ['restriction' => trim($why), ...$state], 'contact restricted');
        self::endLinks($plan, $invitations, $others, $now);

        return $plan->build(
            "Contact restricted: {$guardian->fullName()}",
            "{$guardian->fullName()} is not invited, connected or written to about {$student->fullName()}.",
        );
    }

    public static function lift(Guardianship $link, Person $guardian, Person $student): Plan
    {
        if ($link->restriction() === null) {
            throw new Refusal('There is no restriction.');
        }
        $plan = new PlanBuilder();
        $plan->update($link, ['restriction' => null], 'restriction lifted');

        return $plan->build(
            "Restriction lifted: {$guardian->fullName()}",
            "{$guardian->fullName()} may be invited and connected with {$student->fullName()} again.",
        );
    }

    /**
     * A parent's consent to the account of a child, as the school has it.
     *
     * @param  string  $on YYYY-MM-DD
     * @param  string  $today at the school
     */
    public static function consent(
        Guardianship $link,
        Person $guardian,
        Person $student,
        ConsentWay $way,
        string $on,
        string $today,
    ): Plan {
        if ($link->restriction() !== null) {
            throw new Refusal('Contact with this guardian is restricted: their consent is not asked for.', 'way');
        }
        if ($on > $today) {
            throw new Refusal('That day has not come yet.', 'on');
        }
        $plan = new PlanBuilder();
        $plan->update($link, ['consent_on' => $on, 'consent_way' => $way->value], 'consent');

        return $plan->build(
            "Consent for {$student->fullName()}",
            "{$guardian->fullName()} agreed to the account of {$student->fullName()} on " .
                Words::day($on) .
                ", {$way->label()}.",
        );
    }

    /** @param  list<GuardianInvitation>  $invitations */
    private static function endLinks(PlanBuilder $plan, array $invitations, bool $others, string $now): void
    {
        foreach ($others ? [] : $invitations as $invitation) {
            if ($invitation->state() === GuardianInvitationState::Open) {
                $plan->update($invitation, ['state' => 'ended', 'answered_at' => $now], 'link ended');
            }
        }
    }
}
