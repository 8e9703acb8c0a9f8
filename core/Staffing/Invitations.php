<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\InvitationState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Values\MailAddress;

/** Inviting colleagues into a section by mail, and what they answer. */
final class Invitations
{
    /** Days an invitation can be answered. */
    public const DAYS = 14;

    /**
     * Invites one or many. All of them or, where one cannot be, none: each refusal names its address.
     *
     * @param  list<Invitation>  $invitations of the section
     * @param  list<Person>  $staff who teach it now
     *
     * @return Planned<array<string, Token>> the addresses asked, each once, as read, with the token of the link of each
     *
     * @throws Refusal
     */
    public static function invite(
        Section $section,
        InviteWish $wish,
        array $invitations,
        array $staff,
        SchoolRules $rules,
        Randomness $random,
        Ids $ids,
        string $now,
    ): Planned {
        if ($section->state() !== SectionState::Open) {
            throw new Refusal("{$section->name()} is archived and takes no new teachers.");
        }
        $plan = new PlanBuilder();
        $asked = [];
        foreach ($wish->addresses as $address) {
            $mail = MailAddress::read($address) ?? throw new Refusal("“{$address}” is not an e-mail address.", 'email');
            if (isset($asked[$mail->address])) {
                continue;
            }
            self::mustBeFree($mail, $invitations, $staff, $rules, $now);
            $token = Token::draw($random);
            $asked[$mail->address] = $token;
            $plan->insert(
                Entity::Invitation,
                $ids->for('invitation', $section->id, $mail->address),
                [
                    'section_id' => $section->id,
                    'person_id' => null,
                    'email' => $mail->address,
                    'role' => $wish->role->value,
                    'begins_on' => $wish->beginsOn,
                    'ends_on' => $wish->endsOn,
                    'state' => 'invited',
                    'token_hash' => $token->hash(),
                    'sent_at' => $now,
                    'expires_at' => self::expiry($now),
                    'answered_at' => null,
                    'invited_by' => $wish->by,
                ],
                'invited',
            );
        }
        $dates =
            $wish->role === StaffRole::Substitute
                ? ', from ' . Words::day((string) $wish->beginsOn) . ' and until ' . Words::day((string) $wish->endsOn)
                : '';

        $built = $plan->build(
            "Invitation to {$section->name()}",
            'Invites ' .
                Words::some(array_map(strval(...), array_keys($asked))) .
                " into {$section->name()} as {$wish->role->label()}$dates.",
        );

        return new Planned($built, $asked);
    }

    /** The UTC instant from which a link sent now opens nothing. */
    public static function expiry(string $now): string
    {
        return (new DateTimeImmutable($now, new DateTimeZone('UTC')))
            ->modify('+' . self::DAYS . ' days')
            ->format('Y-m-d H:i:s');
    }

    /**
     * @param  list<Invitation>  $invitations
     * @param  list<Person>  $staff
     */
    private static function mustBeFree(
        MailAddress $mail,
        array $invitations,
        array $staff,
        SchoolRules $rules,
        string $now,
    ): void {
        if (!$rules->outsideStaff && $rules->domains !== [] && !in_array($mail->domain(), $rules->domains, true)) {
            throw new Refusal(
                "{$mail->address}: {$mail->domain()} is not a mail domain of this school. Use a school " .
                    'address, or ask the coordinator to allow co-teachers from outside.',
                'email',
            );
        }
        foreach ($staff as $person) {
            if ($person->email() === $mail->address) {
                throw new Refusal($person->fullName() . " ({$mail->address}) teaches this section already.", 'email');
            }
        }
        foreach ($invitations as $invitation) {
            if (
                $invitation->email() === $mail->address &&
                InvitationStanding::at($invitation->state(), $invitation->expiresAt(), $now) ===
                    InvitationStanding::Invited
            ) {
                throw new Refusal(
                    "{$mail->address} has an open invitation. Send it again, or withdraw it first.",
                    'email',
                );
            }
        }
    }

    /** Sends it again with a new link; the old link stops working. */
    public static function again(Section $section, Invitation $invitation, Token $token, string $now): Plan
    {
        self::mustBeOpen($invitation, null);
        $plan = new PlanBuilder();
        $plan->update(
            $invitation,
            ['token_hash' => $token->hash(), 'sent_at' => $now, 'expires_at' => self::expiry($now)],
            'sent again',
        );

        return $plan->build(
            "Invitation to {$section->name()} again",
            "Sends {$invitation->email()} a new link; the old one stops working.",
        );
    }

    public static function withdraw(Section $section, Invitation $invitation, string $now): Plan
    {
        self::mustBeOpen($invitation, null);
        $plan = new PlanBuilder();
        $plan->update($invitation, ['state' => 'withdrawn', 'answered_at' => $now], 'withdrawn');

        return $plan->build(
            "Invitation to {$section->name()} withdrawn",
            "The link sent to {$invitation->email()} stops working.",
        );
    }

    public static function decline(Section $section, Invitation $invitation, string $now): Plan
    {
        self::mustBeOpen($invitation, $now);
        $plan = new PlanBuilder();
        $plan->update($invitation, ['state' => 'declined', 'answered_at' => $now], 'declined');

        return $plan->build("Invitation to {$section->name()} declined", "{$invitation->email()} declines.");
    }

    /**
     * Someone with an account accepts.
     *
     * @param  list<Enrollment>  $enrollments the person's own
     */
    public static function accept(
        Section $section,
        Invitation $invitation,
        Person $person,
        array $enrollments,
        Occasion $at,
    ): Plan {
        self::mustBeOpen($invitation, $at->now);
        if ($person->kind() !== PersonKind::Staff) {
            throw new Refusal('This invitation is for staff. Sign in with your staff account.');
        }
        $plan = new PlanBuilder();
        self::answer($plan, $section, $invitation, $person->id, $enrollments, $at);

        return $plan->build(
            "Invitation to {$section->name()} accepted",
            trim("{$person->givenName()} {$person->familyName()}") . " teaches {$section->name()}.",
        );
    }

    /**
     * Someone without an account accepts and gets one; the address of the invitation is the user name.
     *
     * @param  string  $passwordHash as stored
     */
    public static function acceptNew(
        Section $section,
        Invitation $invitation,
        PersonName $name,
        string $passwordHash,
        Occasion $at,
    ): Plan {
        self::mustBeOpen($invitation, $at->now);
        if ($name->full() === '') {
            throw new Refusal('Type your name.', 'given_name');
        }
        $plan = new PlanBuilder();
        $id = $at->ids->for('person');
        $plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $section->schoolId(),
                'kind' => 'staff',
                'given_name' => $name->given,
                'family_name' => $name->family,
                'search_name' => $name->searchKey(),
                'birth_date' => null,
                'number' => null,
                'grade' => null,
                // The link was sent there, so whoever holds it reads that mailbox.
                ...Address::confirmed($invitation->email(), AddressSource::Mail, $at->now)->columns(),
                'phone' => null,
                'state' => 'active',
                'merged_into' => null,
            ],
            'accepted an invitation',
        );
        $plan->insert(
            Entity::SignIn,
            $at->ids->for('sign-in'),
            [
                'person_id' => $id,
                'user_name' => $invitation->email(),
                'passphrase' => null,
                'password' => $passwordHash,
            ],
            'accepted an invitation',
        );
        self::answer($plan, $section, $invitation, $id, [], $at);

        return $plan->build(
            "Invitation to {$section->name()} accepted",
            "{$name->full()} makes a staff account and teaches {$section->name()}.",
        );
    }

    /** @param  list<Enrollment>  $enrollments */
    private static function answer(
        PlanBuilder $plan,
        Section $section,
        Invitation $invitation,
        string $personId,
        array $enrollments,
        Occasion $at,
    ): void {
        if ($section->state() !== SectionState::Open) {
            throw new Refusal("{$section->name()} has been archived; there is nothing to teach in it any more.");
        }
        if ($invitation->endsOn() !== null && (string) $invitation->endsOn() <= $at->today) {
            throw new Refusal('The days you were asked for have passed. Ask for a new invitation.');
        }
        $plan->update(
            $invitation,
            ['state' => 'accepted', 'person_id' => $personId, 'answered_at' => $at->now],
            'accepted',
        );
        if (Enrolling::isIn($section->id, $enrollments, $at->today)) {
            return;
        }
        Enrolling::insert(
            $plan,
            $at->ids,
            new NewEnrollment(
                $section->id,
                $personId,
                $invitation->role()->value,
                'invitation',
                max($at->today, (string) $invitation->beginsOn()),
                $invitation->endsOn(),
            ),
        );
    }

    private static function mustBeOpen(Invitation $invitation, ?string $now): void
    {
        $state = $invitation->state();
        if ($state !== InvitationState::Invited) {
            throw new Refusal(
                match ($state) {
                    InvitationState::Accepted => 'This invitation has been accepted.',
                    InvitationState::Declined => 'This invitation has been declined. Ask for a new one.',
                    default => 'This invitation has been withdrawn. Ask for a new one.',
                },
            );
        }
        if ($now !== null && $invitation->expiresAt() <= $now) {
            throw new Refusal('This invitation has expired. Ask the teacher to send it again.');
        }
    }
}
