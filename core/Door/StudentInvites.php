<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\StudentInvitation;
use Vantrel\Core\Records\StudentInvitationState;
use Vantrel\Core\Values\MailAddress;

/**
 * Students and families asked into a section by mail. A link brings the student it was sent for into that section, and
 * does nothing else: it opens no account that is there. Whoever is not on record asks at the door with it, and comes in
 * at once only where nobody on the Roll is like them.
 */
final class StudentInvites
{
    /** Days a link works. */
    public const DAYS = 14;

    /** Links one person sends in a day: a school’s mail is not for writing to a town. */
    public const MOST_A_DAY = 1000;

    /**
     * @param  list<Invitee>  $invitees
     * @param  string  $by id of who invites
     * @param  int  $sent links they have sent within a day
     *
     * @return Planned<array<string, Token>> the tokens of the links, by invitation, in the order of the invitees
     */
    public static function invite(
        Section $section,
        array $invitees,
        string $by,
        int $sent,
        Randomness $random,
        Occasion $at,
    ): Planned {
        Enrolling::mustBeOpen($section);
        if ($invitees === []) {
            throw new Refusal('None of these can be invited.', 'who');
        }
        if ($sent + count($invitees) > self::MOST_A_DAY) {
            throw new Refusal(
                'One person sends at most ' . number_format(self::MOST_A_DAY) . ' links a day. Send the rest tomorrow.',
                'who',
            );
        }
        $plan = new PlanBuilder();
        $tokens = [];
        foreach ($invitees as $invitee) {
            $token = Token::draw($random);
            $id = $at->ids->for('student-invitation', $section->id, $invitee->email, (string) $invitee->studentId);
            $tokens[$id] = $token;
            $plan->insert(
                Entity::StudentInvitation,
                $id,
                [
                    'section_id' => $section->id,
                    'person_id' => $invitee->studentId,
                    'guardian_id' => $invitee->guardianId,
                    'join_request_id' => null,
                    'email' => $invitee->email,
                    'typed' => $invitee->typed,
                    'reader' => $invitee->family ? 'family' : 'student',
                    'language' => $invitee->language,
                    'token_hash' => $token->hash(),
                    'state' => StudentInvitationState::Invited->value,
                    'sent_at' => $at->now,
                    'expires_at' => self::expiry($at->now),
                    'answered_at' => null,
                    'invited_by' => $by,
                ],
                'invited by mail',
            );
        }
        $count = Words::count(count($invitees), 'link');

        return new Planned(
            $plan->build("Invited into {$section->name()} by mail", "Sends $count into {$section->name()}."),
            $tokens,
        );
    }

    /** Sends it again with a new link; the old link stops working. */
    public static function again(Section $section, StudentInvitation $invitation, Token $token, string $now): Plan
    {
        Enrolling::mustBeOpen($section);
        self::mustWait($invitation, null);
        $plan = new PlanBuilder();
        $plan->update(
            $invitation,
            ['token_hash' => $token->hash(), 'sent_at' => $now, 'expires_at' => self::expiry($now)],
            'sent again',
        );

        return $plan->build(
            "Invited into {$section->name()} again",
            "Sends {$invitation->typed()} a new link; the old one stops working.",
        );
    }

    public static function withdraw(Section $section, StudentInvitation $invitation, string $now): Plan
    {
        self::mustWait($invitation, null);

        return self::end(
            $section,
            $invitation,
            'withdrawn',
            "The link for {$invitation->typed()} stops working.",
            $now,
        );
    }

    /** Whoever followed the link says that it is not for them. */
    public static function decline(Section $section, StudentInvitation $invitation, string $now): Plan
    {
        self::mustWait($invitation, $now);

        return self::end($section, $invitation, 'declined', "{$invitation->typed()} declines.", $now);
    }

    /**
     * The student it was sent for comes in, by their own hand or a guardian’s.
     *
     * @param  list<Enrollment>  $enrollments of the student
     * @param  Guardianship|null  $tie of the guardian it was sent to, as it is now
     */
    public static function accept(
        Section $section,
        StudentInvitation $invitation,
        Person $student,
        array $enrollments,
        ?Guardianship $tie,
        Occasion $at,
    ): Plan {
        Enrolling::mustBeOpen($section);
        self::mustWait($invitation, $at->now);
        if ($student->kind() !== PersonKind::Student || $student->state() !== PersonState::Active) {
            throw new Refusal('This account is not in use any more. Ask the school.');
        }
        if ($student->schoolId() !== $section->schoolId()) {
            throw new Refusal('The student is at another school now. Ask the school for another link.');
        }
        if ($invitation->guardianId() !== null && !self::hears($tie)) {
            throw new Refusal('This link does not work any more. Ask the school for another one.');
        }
        $plan = new PlanBuilder();
        $plan->update(
            $invitation,
            ['state' => StudentInvitationState::Came->value, 'person_id' => $student->id, 'answered_at' => $at->now],
            'came in by it',
        );
        if (!Enrolling::isIn($section->id, $enrollments, $at->today)) {
            Enrolling::atTheDoor($plan, $section->id, $student->id, 'invitation', null, $at);
        }

        return $plan->build(
            "Into {$section->name()} by mail",
            $student->fullName() . " comes into {$section->name()} by the link sent to {$invitation->typed()}.",
        );
    }

    /**
     * Somebody who is not on record asks to come in by it.
     *
     * @return Planned<string> id of the request
     *
     * @throws Refusal in words for whoever followed the link
     */
    public static function ask(
        Section $section,
        StudentInvitation $invitation,
        Newcomer $newcomer,
        SchoolRules $rules,
        Occasion $at,
    ): Planned {
        Enrolling::mustBeOpen($section);
        self::mustWait($invitation, $at->now);
        Newcomers::mustBeFilledIn($newcomer, $rules, $at->today);
        if (Newcomers::isChild($newcomer, $at->today) && $rules->under13 === 'listed') {
            throw new Refusal('The school makes the accounts of students under 13. Ask your teacher for yours.');
        }
        $id = $at->ids->for('request');
        $plan = new PlanBuilder();
        $plan->insert(
            Entity::JoinRequest,
            $id,
            [
                'section_id' => $section->id,
                'join_code_id' => null,
                'person_id' => null,
                'state' => 'waiting',
                'cause' => 'invited',
                'given_name' => $newcomer->name->given,
                'family_name' => $newcomer->name->family,
                'birth_date' => $newcomer->birthDate,
                'number' => $newcomer->number,
                // A parent’s mailbox is not the child’s address.
                'email' => $invitation->isFamily() ? null : $invitation->email(),
                'password' => $newcomer->passwordHash,
                'token_hash' => null,
                'made_at' => $at->now,
                'answered_at' => null,
                'answered_by' => null,
                'sign_in_id' => null,
            ],
            'asked by a link',
        );
        $plan->update(
            $invitation,
            ['state' => StudentInvitationState::Asked->value, 'join_request_id' => $id, 'answered_at' => $at->now],
            'asked by it',
        );

        return new Planned(
            $plan->build(
                "Request for {$section->name()}",
                "{$newcomer->name->full()} asks to come into {$section->name()} by the link sent to " .
                    "{$invitation->typed()}.",
            ),
            $id,
        );
    }

    /**
     * Whether whoever asked by a link is let in without a person looking: an address of the school, nobody on the Roll
     * like them, and no child who would have to be listed first.
     */
    public static function comesInAtOnce(
        StudentInvitation $invitation,
        Newcomer $newcomer,
        SchoolRules $rules,
        bool $alike,
        string $today,
    ): bool {
        $domain = (string) MailAddress::read($invitation->email())?->domain();

        return !$alike &&
            !$invitation->isFamily() &&
            in_array($domain, $rules->domains, true) &&
            !Newcomers::isChild($newcomer, $today);
    }

    /** @throws Refusal where the link opens nothing any more, in words for whoever followed it */
    public static function mustWait(StudentInvitation $invitation, ?string $now): void
    {
        $state = $invitation->state();
        if ($state === StudentInvitationState::Invited) {
            if ($now !== null && $invitation->expiresAt() <= $now) {
                throw new Refusal('This link is too old. Ask the school for another one.');
            }

            return;
        }
        if ($state === StudentInvitationState::Asked) {
            throw new Refusal('You have asked to come in by this link. Sign in once the teacher has let you in.');
        }
        if ($state === StudentInvitationState::Came) {
            throw new Refusal('This link has been used. Sign in with your card or password.');
        }
        throw new Refusal('This link does not work any more. Ask the school for another one.');
    }

    /** Whether a guardian still hears of the child, as they stand now. */
    private static function hears(?Guardianship $tie): bool
    {
        return $tie !== null &&
            $tie->restriction() === null &&
            in_array($tie->state(), MessageKind::Student->heardBy(), true);
    }

    private static function end(
        Section $section,
        StudentInvitation $invitation,
        string $state,
        string $sentence,
        string $now,
    ): Plan {
        $plan = new PlanBuilder();
        $plan->update($invitation, ['state' => $state, 'answered_at' => $now], $state);

        return $plan->build("Invitation into {$section->name()} $state", $sentence);
    }

    /** The UTC instant from which a link sent now opens nothing. */
    public static function expiry(string $now): string
    {
        return (new DateTimeImmutable($now, new DateTimeZone('UTC')))
            ->modify('+' . self::DAYS . ' days')
            ->format('Y-m-d H:i:s');
    }
}
