<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\ClaimState;
use Vantrel\Core\Records\GuardianClaim;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;

/** Guardians who ask without a letter. */
final class Askings
{
    /**
     * Somebody without a letter, about the one student their words fit. Unlike with a letter nothing shows that they
     * know of the child, so nobody is told what was found: only what is confirmed and on record settles it, and all
     * else is for the school, as the guardian wrote it.
     *
     * @param  list<OnRecord>  $record guardians of the student
     * @return Planned<Decision> an empty plan where a person looks
     */
    public static function seek(
        Person $student,
        Claimant $claimant,
        array $record,
        GuardianPolicy $policy,
        string $now,
    ): Planned {
        $plan = new PlanBuilder();
        $name = $claimant->name->full();
        $decision = (new Likeness())->decide($claimant, $student->schoolId(), $record, $policy);
        if ($decision->connects && $decision->whom !== null && $claimant->person !== null) {
            $own = OnRecord::linksOf($claimant, $record);
            Claims::connect($plan, $decision->whom->link, $claimant->person->id, $own, $now);
        }

        return new Planned(
            $plan->build(
                "Guardian connected: $name",
                "$name is connected with {$student->fullName()}: they knew the child, and what they have confirmed " .
                    'is on record.',
            ),
            $decision,
        );
    }

    /**
     * The request of somebody without a letter, once the school has found the child.
     *
     * @param  list<OnRecord>  $record guardians of the student
     * @param  list<GuardianClaim>  $claims about the student
     * @return Planned<string> the id of the request
     *
     * @throws Refusal
     */
    public static function found(
        Person $student,
        Claimant $claimant,
        array $record,
        array $claims,
        Occasion $at,
    ): Planned {
        if ($student->kind() !== PersonKind::Student) {
            throw new Refusal("{$student->fullName()} is no student.", 'student');
        }
        if ($student->state() !== PersonState::Active) {
            throw new Refusal("{$student->fullName()} is not at the school any more.");
        }
        foreach ($claims as $claim) {
            if ($claim->state() === ClaimState::Waiting && $claim->email() === $claimant->email) {
                throw new Refusal("{$claimant->name->full()} asks for {$student->fullName()} already.");
            }
        }
        $plan = new PlanBuilder();
        // By policy only a person connects here: it has come to one already.
        $decision = (new Likeness())->decide($claimant, $student->schoolId(), $record, GuardianPolicy::Check);
        $id = Claims::wait($plan, $student, $claimant, $decision->whom?->person->id, null, $at);
        $name = $claimant->name->full();

        return new Planned(
            $plan->build("Guardian request: $name", "$name asks to be connected with {$student->fullName()}."),
            $id,
        );
    }
}
