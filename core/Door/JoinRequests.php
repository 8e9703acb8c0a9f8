<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\StudentAccount;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RequestCause;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\Section;

/** Join requests answered: somebody who waits is let in as a new or a known person, or turned away. */
final class JoinRequests
{
    /**
     * Lets a newcomer in with an account of their own. Their password becomes the account's and is forgotten here.
     *
     * @param  string|null  $answererId null where nobody did: their own mail answered, or an invitation. An address
     *     that a link was followed from is confirmed
     * @param  string|null  $passwordHash chosen with the link of that mail
     *
     * @return Planned<LetIn>
     */
    public static function approve(
        Section $section,
        JoinRequest $request,
        UserNames $userNames,
        ?string $answererId,
        ?string $passwordHash,
        Occasion $at,
    ): Planned {
        self::mustWait($section, $request);
        $plan = new PlanBuilder();
        $name = self::name($request);
        $id = $at->ids->for('person');
        $plan->insert(
            Entity::Person,
            $id,
            [
                'school_id' => $section->schoolId(),
                'kind' => 'student',
                'given_name' => $name->given,
                'family_name' => $name->family,
                'search_name' => $name->searchKey(),
                'birth_date' => $request->birthDate(),
                'number' => null,
                'grade' => $section->grade(),
                ...($request->email() !== null && ($answererId === null || $request->cause() === RequestCause::Invited)
                    ? Address::confirmed($request->email(), AddressSource::Mail, $at->now)
                    : Address::claimed($request->email(), AddressSource::Door, $at->now)
                )->columns(),
                'phone' => null,
                'state' => 'active',
                'merged_into' => null,
            ],
            'let in at the door',
        );
        $plan->insert(
            Entity::SignIn,
            $at->ids->for('sign-in'),
            [
                'person_id' => $id,
                'user_name' => $userNames->give($name->given, $name->family),
                'passphrase' => null,
                'password' => $passwordHash ?? $request->password(),
                // Anybody can ask in any name; only an address of the school that has answered shows whose it is.
                'unproven' => $passwordHash === null && $request->password() !== null ? 1 : 0,
            ],
            'let in at the door',
        );
        Enrolling::atTheDoor($plan, $section->id, $id, 'request', $request->joinCodeId(), $at);
        self::answered($plan, $request, 'approved', $id, $answererId, $at->now, $at->ids->for('sign-in'));

        $built = $plan->build(
            "{$name->full()} into {$section->name()}",
            "{$name->full()} gets an account and comes into {$section->name()}.",
        );

        return new Planned($built, new LetIn($id, $at->ids->for('sign-in')));
    }

    /**
     * The newcomer is said to be somebody the school knows: that person comes into the section, and no second account
     * is made. A likeness hands nobody an account. What was chosen at the door becomes the password only where nobody
     * has used the account yet and the request brings what the school asks as a proof; in all other cases the person
     * signs in as before.
     *
     * @param  bool  $proven whether the request fits what the school asks ({@see proves()})
     * @param  list<Enrollment>  $enrollments of that person
     */
    public static function approveAs(
        Section $section,
        JoinRequest $request,
        StudentAccount $account,
        bool $proven,
        array $enrollments,
        string $answererId,
        Occasion $at,
    ): Plan {
        self::mustWait($section, $request);
        [$person, $signIn] = [$account->person, $account->signIn()];
        if ($person->kind() !== PersonKind::Student || $person->state() !== PersonState::Active) {
            throw new Refusal('That is not the account of an active student.');
        }
        $plan = new PlanBuilder();
        $takes =
            $proven &&
            !$account->isUsed() &&
            $signIn !== null &&
            $account->way !== Way::School &&
            $request->password() !== null;
        if ($takes) {
            $plan->update(
                $signIn,
                ['password' => (string) $request->password(), 'passphrase' => null],
                'taken by its owner at the door',
            );
        }
        if (!Enrolling::isIn($section->id, $enrollments, $at->today)) {
            Enrolling::atTheDoor($plan, $section->id, $person->id, 'request', $request->joinCodeId(), $at);
        }
        self::answered($plan, $request, 'approved', $person->id, $answererId, $at->now, $takes ? $signIn->id : null);

        return $plan->build(
            $person->fullName() . " into {$section->name()}",
            self::name($request)->full() .
                ' is ' .
                $person->fullName() .
                " of the list and comes into {$section->name()}. " .
                ($takes
                    ? 'The account waited for its owner and is theirs now, with the password they chose.'
                    : 'The account stays with whoever has its card or password; if they have neither, print a card.'),
        );
    }

    /** Whether a request brings what the school asks as a proof of being a student of the list. */
    public static function proves(JoinRequest $request, Person $person, string $check): bool
    {
        $said = $check === 'number' ? $request->number() : ($check === 'birth_date' ? $request->birthDate() : null);

        return $said !== null && Newcomers::fits($person, $check, $said);
    }

    /**
     * All who wait are turned away at once: a door that somebody has filled is free again.
     *
     * @param  list<JoinRequest>  $requests that wait
     */
    public static function refuseAll(Section $section, array $requests, string $answererId, string $now): Plan
    {
        Enrolling::mustBeOpen($section);
        if ($requests === []) {
            throw new Refusal('Nobody waits.');
        }
        $plan = new PlanBuilder();
        foreach ($requests as $request) {
            self::answered($plan, $request, 'refused', null, $answererId, $now);
        }
        $count = Words::count(count($requests), 'request');

        return $plan->build(
            "$count turned away from {$section->name()}",
            "Turns $count away. No accounts are made; who should have come in can ask again.",
        );
    }

    public static function refuse(Section $section, JoinRequest $request, string $answererId, string $now): Plan
    {
        self::mustWait($section, $request);
        $plan = new PlanBuilder();
        self::answered($plan, $request, 'refused', null, $answererId, $now);

        return $plan->build(
            'Turned away from ' . $section->name(),
            self::name($request)->full() . " does not come into {$section->name()}. No account is made.",
        );
    }

    /** @param  list<JoinRequest>  $requests of a section that is archived */
    public static function closeAll(PlanBuilder $plan, array $requests, string $now): void
    {
        foreach ($requests as $request) {
            if (in_array($request->state(), [RequestState::Waiting, RequestState::Mail], true)) {
                self::answered($plan, $request, 'refused', null, null, $now);
            }
        }
    }

    private static function answered(
        PlanBuilder $plan,
        JoinRequest $request,
        string $state,
        ?string $personId,
        ?string $answererId,
        string $now,
        ?string $signInId = null,
    ): void {
        // What was chosen at the door goes with the account it was chosen for. Turned away it stays with the request,
        // so that an undo lets them wait again as they did, until the request is cleared away.
        $secrets = $state === 'refused' ? [] : ['password' => null, 'token_hash' => null];
        $plan->update(
            $request,
            [
                'state' => $state,
                'person_id' => $personId,
                ...$secrets,
                'answered_at' => $now,
                'answered_by' => $answererId,
                'sign_in_id' => $signInId,
            ],
            $state,
        );
    }

    private static function name(JoinRequest $request): PersonName
    {
        return new PersonName($request->givenName(), $request->familyName());
    }

    private static function mustWait(Section $section, JoinRequest $request): void
    {
        Enrolling::mustBeOpen($section);
        if (!in_array($request->state(), [RequestState::Waiting, RequestState::Mail], true)) {
            throw new Refusal(
                $request->state() === RequestState::Approved
                    ? 'This request has been answered: they are in.'
                    : 'This request has been answered: they were turned away.',
            );
        }
    }
}
