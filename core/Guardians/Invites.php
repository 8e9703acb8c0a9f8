<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Closure;
use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\GuardianInvitationState;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Values\Language;

/**
 * Guardians asked by mail: one link for a guardian and a school, whatever the number of children. It names the school
 * and the given names of the children, and no more. Whoever follows it reads the mailbox that the school has on record.
 */
final class Invites
{
    /** How long a link opens something: families read school mail when they get to it. Common practice, no source. */
    public const DAYS = 28;

    /** After so many days somebody who has not answered is reminded, once; as many later they stand in the worklist. */
    public const REMIND_AFTER = 7;

    /**
     * @param  list<Guardianship>  $links
     * @param  array<string, Person>  $people guardians and students, by id
     * @param  list<GuardianInvitation>  $open of these guardians at the school
     * @param  array<string, string>  $bounced addresses that mail came back from, and why
     * @param  Closure(string): string  $hash of the token of an invitation, by its id
     * @return Planned<Invited>
     */
    public static function plan(
        string $schoolId,
        array $links,
        array $people,
        array $open,
        array $bounced,
        Closure $hash,
        ?string $by,
        Ids $ids,
        string $now,
    ): Planned {
        $plan = new PlanBuilder();
        $byGuardian = [];
        foreach ($open as $invitation) {
            $byGuardian[$invitation->guardianId()][] = $invitation;
        }
        $not = [];
        $made = $languages = [];
        $children = 0;
        foreach ($links as $link) {
            $guardian = $people[$link->guardianId()] ?? null;
            $student = $people[$link->studentId()] ?? null;
            if ($guardian === null || $student === null) {
                continue;
            }
            $works = array_filter(
                $byGuardian[$guardian->id] ?? [],
                fn(GuardianInvitation $i): bool => $i->email() === $guardian->email() && self::isOpen($i, $now),
            );
            $why = NotInvited::why(
                $link,
                $guardian,
                $student,
                $works !== [],
                isset($bounced[(string) $guardian->email()]),
            );
            if ($why !== null) {
                $not[$why->value] = ($not[$why->value] ?? 0) + 1;

                continue;
            }
            $children++;
            $plan->update($link, Ties::to(GuardianshipState::Invited, $by, $now), 'invited');
            if (isset($made[$guardian->id])) {
                continue;
            }
            foreach ($byGuardian[$guardian->id] ?? [] as $old) {
                self::end($plan, $old, $now);
            }
            $id = $ids->for('guardian-invitation', $schoolId, $guardian->id);
            $made[$guardian->id] = $id;
            $language = self::language($guardian->language(), $student->language());
            $languages[$language] = ($languages[$language] ?? 0) + 1;
            $plan->insert(
                Entity::GuardianInvitation,
                $id,
                [
                    'school_id' => $schoolId,
                    'guardian_id' => $guardian->id,
                    'email' => $guardian->email(),
                    'token_hash' => $hash($id),
                    'state' => 'open',
                    'sent_at' => $now,
                    'expires_at' => self::days($now, self::DAYS),
                    'reminded_at' => null,
                    'answered_at' => null,
                    'invited_by' => $by,
                ],
                'invited',
            );
        }
        arsort($not);
        arsort($languages);
        $count = Words::count(count($made), 'guardian');
        $result = new Invited(array_values($made), $children, $languages, $not);

        return new Planned(
            $plan->build(
                "$count invited",
                trim("Sends a link to $count, for " . Words::count($children, 'child', 'children') . '.'),
            ),
            $result,
        );
    }

    /** The language a guardian is written to in: their own, else their child’s, of those there are words in. */
    public static function language(?string $own, ?string $ofChild): string
    {
        $tag = $own ?? ($ofChild ?? 'en');

        return in_array($tag, Language::WRITTEN, true) ? $tag : 'en';
    }

    /**
     * The same link once more, to whoever has not answered for a week.
     *
     * @param  list<GuardianInvitation>  $invitations
     */
    public static function remind(array $invitations, string $now): Plan
    {
        $plan = new PlanBuilder();
        $count = 0;
        foreach ($invitations as $invitation) {
            if (self::isOpen($invitation, $now)) {
                $plan->update($invitation, ['reminded_at' => $now], 'reminded');
                $count++;
            }
        }

        return $plan->build(
            Words::count($count, 'guardian') . ' reminded',
            'Reminds ' .
                Words::count($count, 'guardian') .
                ' who ' .
                ($count === 1 ? 'has' : 'have') .
                ' not answered.',
        );
    }

    /**
     * @param  list<Guardianship>  $links that the invitation is about
     */
    public static function withdraw(
        GuardianInvitation $invitation,
        Person $guardian,
        array $links,
        ?string $by,
        string $now,
    ): Plan {
        if ($invitation->state() !== GuardianInvitationState::Open) {
            throw new Refusal('This invitation has been answered or withdrawn already.');
        }
        $plan = new PlanBuilder();
        self::end($plan, $invitation, $now);
        foreach ($links as $link) {
            if ($link->state() === GuardianshipState::Invited) {
                $plan->update($link, Ties::to(GuardianshipState::Listed, $by, $now), 'withdrawn');
            }
        }

        return $plan->build(
            "Invitation withdrawn: {$guardian->fullName()}",
            "The link sent to {$invitation->email()} stops working.",
        );
    }

    /**
     * Whoever has the link says that they are the guardian.
     *
     * @param  list<Guardianship>  $links of the guardian on record, at the school
     * @param  array<string, Person>  $students by id
     * @param  Person  $guardian on record
     * @param  Person  $account who they are signed in as, else the guardian on record
     * @param  list<SignIn>  $signIns of the account
     * @param  bool  $taken whether somebody else signs in with the address
     * @param  string|null  $password as stored, for an account that has none; null where it has one
     * @param  list<Guardianship>  $own of the account
     */
    public static function accept(
        GuardianInvitation $invitation,
        array $links,
        array $students,
        Person $guardian,
        Person $account,
        array $signIns,
        array $own,
        bool $taken,
        ?string $password,
        GuardianPolicy $policy,
        Occasion $at,
    ): Plan {
        self::mustWork($invitation, $guardian, $at->now);
        $links = self::waiting($links, $students);
        if ($account->id !== $guardian->id) {
            // What they are signed in with has to be the mailbox the school asked.
            if (!Address::isConfirmed($account) || $account->email() !== $invitation->email()) {
                throw new Refusal(
                    'This invitation went to another address than that of your account. Sign out, then follow the ' .
                        'link again.',
                );
            }
        } elseif ($signIns === [] && $taken) {
            throw new Refusal(
                'There is an account with this address already. Sign in with it, then follow the link again.',
            );
        }
        $plan = new PlanBuilder();
        if ($account->id === $guardian->id) {
            $address = Address::confirmed($invitation->email(), AddressSource::Mail, $at->now)->changes($guardian);
            if ($address !== []) {
                $plan->update($guardian, $address, AddressSource::Mail->label());
            }
            self::signIn($plan, $guardian, $invitation->email(), $signIns, $password, $at);
        }
        $plan->update($invitation, ['state' => 'used', 'answered_at' => $at->now], 'answered');
        $names = [];
        foreach ($links as $link) {
            $student = $students[$link->studentId()];
            $names[] = $student->fullName();
            if ($policy === GuardianPolicy::Check) {
                Claims::wait(
                    $plan,
                    $student,
                    new Claimant(
                        new PersonName($account->givenName(), $account->familyName()),
                        $invitation->email(),
                        $account->phone(),
                        $account,
                    ),
                    $guardian->id,
                    null,
                    $at,
                );

                continue;
            }
            Claims::connect($plan, $link, $account->id, $own, $at->now);
        }

        return $plan->build(
            "Guardian answered: {$account->fullName()}",
            $account->fullName() .
                ($policy === GuardianPolicy::Check ? ' asks to be connected with ' : ' is connected with ') .
                Words::some($names) .
                ', by the link sent to the address on record.',
        );
    }

    /**
     * Whoever has the link says that the children are not theirs.
     *
     * @param  list<Guardianship>  $links of the guardian, at the school
     * @param  array<string, Person>  $students by id
     */
    public static function decline(
        GuardianInvitation $invitation,
        array $links,
        array $students,
        Person $guardian,
        string $now,
    ): Plan {
        self::mustWork($invitation, $guardian, $now);
        $plan = new PlanBuilder();
        $plan->update($invitation, ['state' => 'used', 'answered_at' => $now], 'not theirs');
        foreach (self::waiting($links, $students) as $link) {
            $plan->update($link, Ties::to(GuardianshipState::Refused, $guardian->id, $now), 'not theirs');
        }

        return $plan->build(
            "Guardian says no: {$guardian->fullName()}",
            "Whoever reads {$invitation->email()} says that the children are not theirs.",
        );
    }

    /** @throws Refusal in words for whoever followed the link */
    public static function mustWork(GuardianInvitation $invitation, Person $guardian, string $now): void
    {
        if (
            !self::isOpen($invitation, $now) ||
            $guardian->state() !== PersonState::Active ||
            // The school has another address by now: whoever reads the old one is somebody else.
            $guardian->email() !== $invitation->email()
        ) {
            throw new Refusal('This link does not work any more. Ask the school for another one.', 'token');
        }
    }

    /**
     * The ties a link is about: invited, not restricted, to children who are still there.
     *
     * @param  list<Guardianship>  $links
     * @param  array<string, Person>  $students by id
     * @return non-empty-list<Guardianship>
     */
    public static function waiting(array $links, array $students): array
    {
        $waiting = array_values(
            array_filter(
                $links,
                fn(Guardianship $g): bool => $g->state() === GuardianshipState::Invited &&
                    $g->restriction() === null &&
                    ($students[$g->studentId()] ?? null)?->state() === PersonState::Active,
            ),
        );
        if ($waiting === []) {
            throw new Refusal('This link does not work any more. Ask the school for another one.', 'token');
        }

        return $waiting;
    }

    public static function isOpen(GuardianInvitation $invitation, string $now): bool
    {
        return $invitation->state() === GuardianInvitationState::Open && $invitation->expiresAt() > $now;
    }

    private static function end(PlanBuilder $plan, GuardianInvitation $invitation, string $now): void
    {
        if ($invitation->state() === GuardianInvitationState::Open) {
            $plan->update($invitation, ['state' => 'ended', 'answered_at' => $now], 'link ended');
        }
    }

    /** @param  list<SignIn>  $signIns */
    private static function signIn(
        PlanBuilder $plan,
        Person $guardian,
        string $email,
        array $signIns,
        ?string $password,
        Occasion $at,
    ): void {
        if ($signIns === []) {
            $plan->insert(
                Entity::SignIn,
                $at->ids->for('sign-in', $guardian->id),
                ['person_id' => $guardian->id, 'user_name' => $email, 'passphrase' => null, 'password' => $password],
                'account opened',
            );
        } elseif (array_filter($signIns, fn(SignIn $s): bool => $s->password() !== null) === []) {
            $plan->update($signIns[0], ['password' => $password], 'password set');
        }
    }

    /** @return string UTC instant so many days later */
    private static function days(string $instant, int $days): string
    {
        return (new DateTimeImmutable($instant, new DateTimeZone('UTC')))->modify("+$days days")->format('Y-m-d H:i:s');
    }
}
