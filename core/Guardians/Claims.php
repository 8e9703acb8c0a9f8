<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\ClaimState;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\FamilyLetter;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\LiveState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SignIn;

/**
 * Guardians who come with the code of a letter. The code shows that a letter was in their hands and no more: aunts and
 * neighbours are not guardians, so a person of the school answers. An account is opened by a link to the address that
 * was looked at, never by what somebody typed here.
 */
final class Claims
{
    /** By one letter, until somebody of the school has looked: a household, and a slip of the pen or two. */
    public const MOST_WAITING = 4;

    /**
     * @param  list<GuardianClaim>  $claims by the same letter
     * @param  list<OnRecord>  $record guardians of the student
     * @return Planned<Decision>
     *
     * @throws Refusal in words for the guardian
     */
    public static function ask(
        FamilyLetter $letter,
        Person $student,
        Claimant $claimant,
        array $claims,
        array $record,
        GuardianPolicy $policy,
        Occasion $at,
    ): Planned {
        self::mustWork($letter, $student);
        $plan = new PlanBuilder();
        $waiting = array_filter($claims, fn(GuardianClaim $c): bool => $c->state() === ClaimState::Waiting);
        foreach ($waiting as $claim) {
            // An account may have no address; whoever has none is known by it.
            $same =
                $claimant->person === null
                    ? $claim->email() === $claimant->email
                    : $claim->personId() === $claimant->person->id;
            if ($same && $claimant->person === null) {
                // Not told: who asks twice with addresses of others would learn which of them are on record.
                return new Planned($plan->build('Guardian request', 'It waits already.'), Decision::look(null));
            }
            if ($same) {
                throw new Refusal('Your request is already with the school. There is nothing more to do.');
            }
        }
        if (count($waiting) >= self::MOST_WAITING) {
            throw new Refusal('Several requests with this code are waiting. Ask the school office.');
        }
        $own = OnRecord::linksOf($claimant, $record);
        foreach ($own as $link) {
            if ($link->state() === GuardianshipState::Connected) {
                throw new Refusal('This child is already connected to you.');
            }
        }
        $decision = (new Likeness())->decide($claimant, $student->schoolId(), $record, $policy);
        $name = $claimant->name->full();
        if ($decision->connects && $decision->whom !== null && $claimant->person !== null) {
            self::connect($plan, $decision->whom->link, $claimant->person->id, $own, $at->now);

            return new Planned(
                $plan->build(
                    "Guardian connected: $name",
                    "$name is connected with {$student->fullName()}: a family letter, and what they have confirmed " .
                        'is on record.',
                ),
                $decision,
            );
        }
        if (!$decision->sends) {
            self::wait($plan, $student, $claimant, $decision->whom?->person->id, $letter->id, $at);
        }

        return new Planned(
            $plan->build(
                "Guardian request: $name",
                "$name came with a family letter and asks to be connected with {$student->fullName()}.",
            ),
            $decision,
        );
    }

    /**
     * A request that a person of the school answers.
     *
     * @param  string|null  $suggested id of whom on record they seem to be
     * @param  string|null  $letterId null where they came by a link, or without anything
     * @return string its id
     */
    public static function wait(
        PlanBuilder $plan,
        Person $student,
        Claimant $claimant,
        ?string $suggested,
        ?string $letterId,
        Occasion $at,
    ): string {
        $id = $at->ids->for('claim', $student->id);
        $plan->insert(
            Entity::GuardianClaim,
            $id,
            [
                'letter_id' => $letterId,
                'student_id' => $student->id,
                'person_id' => $claimant->person?->id,
                'suggested_id' => $suggested,
                'given_name' => $claimant->name->given,
                'family_name' => $claimant->name->family,
                'email' => $claimant->email,
                'phone' => $claimant->phone,
                'state' => 'waiting',
                'reason' => null,
                'made_at' => $at->now,
                'answered_at' => null,
            ],
            $letterId === null ? 'came without a letter' : 'came with a letter',
        );

        return $id;
    }

    /**
     * Ties a child to the account of whoever is on record for it. Where that is another account of theirs, as a teacher
     * has one, the tie moves there.
     *
     * @param  list<Guardianship>  $own ties of the account
     */
    public static function connect(
        PlanBuilder $plan,
        Guardianship $onRecord,
        string $accountId,
        array $own,
        string $now,
    ): void {
        $connected = Ties::to(GuardianshipState::Connected, $accountId, $now);
        if ($onRecord->guardianId() === $accountId) {
            $plan->update($onRecord, $connected, 'guardian connected');

            return;
        }
        foreach ($own as $link) {
            if ($link->studentId() === $onRecord->studentId()) {
                $plan->update($link, $connected, 'guardian connected');

                return;
            }
        }
        $plan->update($onRecord, ['guardian_id' => $accountId, ...$connected], 'guardian connected');
    }

    /** @throws Refusal in words for the guardian */
    public static function mustWork(FamilyLetter $letter, Person $student): void
    {
        if ($letter->state() !== LiveState::Live || $student->state() !== PersonState::Active) {
            throw new Refusal('This code does not work any more. Ask the school for another letter.', 'code');
        }
    }

    /**
     * Connects whoever asked: as themselves where they were signed in, as a guardian on record, or as somebody new.
     *
     * @param  Person|null  $guardian whom it is; null for somebody new
     * @param  list<Guardianship>  $guardianships of the student
     * @param  list<SignIn>  $signIns of the guardian
     * @param  bool  $taken whether somebody else signs in with the address
     *
     * @throws Refusal
     */
    public static function approve(
        GuardianClaim $claim,
        Person $student,
        ?Person $guardian,
        array $guardianships,
        array $signIns,
        bool $taken,
        ?string $by,
        Ids $ids,
        string $now,
    ): Plan {
        self::mustWait($claim);
        if ($claim->personId() !== null && $guardian?->id !== $claim->personId()) {
            throw new Refusal('They asked from an account of their own, which is the one to connect.', 'guardian');
        }
        $onRecord = array_map(fn(Guardianship $g): string => $g->guardianId(), $guardianships);
        if ($guardian !== null && $guardian->id !== $claim->personId() && !in_array($guardian->id, $onRecord, true)) {
            throw new Refusal('That is no guardian on record of this student.', 'guardian');
        }
        if ($guardian !== null && ($guardian->state() !== PersonState::Active || $guardian->id === $student->id)) {
            throw new Refusal('That account cannot be connected. Choose another.', 'guardian');
        }
        if ($taken && $signIns === []) {
            throw new Refusal(
                "Somebody signs in with {$claim->email()} already. Choose that person, or ask for another address.",
                'guardian',
            );
        }
        foreach ($guardianships as $link) {
            if ($link->guardianId() === $guardian?->id && $link->restriction() !== null) {
                throw new Refusal(
                    'Contact with this guardian is restricted. Turn the request down, or lift the restriction first.',
                    'guardian',
                );
            }
        }
        $plan = new PlanBuilder();
        $name = trim("{$claim->givenName()} {$claim->familyName()}");
        $id = $guardian->id ?? $ids->for('guardian', $claim->id);
        $address = Address::claimed($claim->email(), AddressSource::Hand, $now);
        if ($guardian === null) {
            $plan->insert(
                Entity::Person,
                $id,
                [
                    'school_id' => $student->schoolId(),
                    'kind' => 'guardian',
                    'given_name' => $claim->givenName(),
                    'family_name' => $claim->familyName(),
                    'search_name' => NameKey::of($name),
                    'birth_date' => null,
                    'number' => null,
                    'grade' => null,
                    ...$address->columns(),
                    'phone' => $claim->phone(),
                    'state' => 'active',
                    'merged_into' => null,
                ],
                'guardian connected',
            );
        } elseif ($signIns === [] && $guardian->email() !== $claim->email()) {
            // The link that opens the account goes where they say they read it.
            $plan->update($guardian, $address->columns(), 'guardian connected');
        }
        if ($signIns === []) {
            $plan->insert(
                Entity::SignIn,
                $ids->for('sign-in', $claim->id),
                ['person_id' => $id, 'user_name' => $claim->email(), 'passphrase' => null, 'password' => null],
                'guardian connected',
            );
        }
        self::link($plan, $student, $id, $claim->suggestedId(), $guardianships, $by, $ids, $now);
        $plan->update($claim, ['state' => 'approved', 'answered_at' => $now, 'person_id' => $id], 'approved');

        return $plan->build(
            "Guardian connected: $name",
            "$name is connected with {$student->givenName()} {$student->familyName()}.",
        );
    }

    /**
     * Whether a request may be answered with a glance, together with others: name and address or telephone are those of
     * one on record, of nobody else, and nobody of that name is kept away.
     *
     * @param  string|null  $suggested id of whom on record they seem to be
     * @param  list<Beside>  $record
     */
    public static function isClear(?string $suggested, array $record): bool
    {
        $likely = array_values(
            array_filter($record, fn(Beside $b): bool => $b->id === $suggested || count($b->alike) > 1),
        );
        $kept = array_filter($record, fn(Beside $b): bool => $b->restricted && in_array('name', $b->alike, true));

        return $kept === [] &&
            count($likely) === 1 &&
            count($likely[0]->alike) > 1 &&
            !$likely[0]->restricted &&
            in_array($likely[0]->state, [GuardianshipState::Listed, GuardianshipState::Invited], true);
    }

    /** @param  string  $reason for the school's own ledger */
    public static function refuse(GuardianClaim $claim, string $reason, string $now): Plan
    {
        self::mustWait($claim);
        $plan = new PlanBuilder();
        $plan->update($claim, ['state' => 'refused', 'reason' => $reason, 'answered_at' => $now], 'refused');
        $name = trim("{$claim->givenName()} {$claim->familyName()}");

        return $plan->build("Guardian turned down: $name", "$name is not connected: $reason");
    }

    private static function mustWait(GuardianClaim $claim): void
    {
        if ($claim->state() !== ClaimState::Waiting) {
            throw new Refusal('This has been answered already.');
        }
    }

    /** @param  list<Guardianship>  $guardianships of the student */
    private static function link(
        PlanBuilder $plan,
        Person $student,
        string $guardianId,
        ?string $suggested,
        array $guardianships,
        ?string $by,
        Ids $ids,
        string $now,
    ): void {
        $connected = Ties::to(GuardianshipState::Connected, $by, $now);
        foreach ($guardianships as $link) {
            if ($link->guardianId() === $guardianId) {
                $plan->update($link, $connected, 'guardian connected');

                return;
            }
        }
        // They asked from another account of theirs than the one on record: the tie moves there.
        foreach ($guardianships as $link) {
            if ($link->guardianId() === $suggested && $link->restriction() === null) {
                $plan->update($link, ['guardian_id' => $guardianId, ...$connected], 'guardian connected');

                return;
            }
        }
        $plan->insert(
            Entity::Guardianship,
            $ids->for('guardianship', $student->id, $guardianId),
            [
                'student_id' => $student->id,
                'guardian_id' => $guardianId,
                'relationship' => null,
                'restriction' => null,
                ...$connected,
            ],
            'guardian connected',
        );
    }
}
