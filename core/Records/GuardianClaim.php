<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Somebody's word that they are a guardian of a student, given with the code of a family letter. */
final readonly class GuardianClaim extends Record
{
    public static function entity(): Entity
    {
        return Entity::GuardianClaim;
    }

    public function studentId(): string
    {
        return $this->text('student_id');
    }

    /** Who they were signed in as; null for somebody without an account. */
    public function personId(): ?string
    {
        return $this->field('person_id');
    }

    /** Whom on record they seem to be; null where nobody is alike. */
    public function suggestedId(): ?string
    {
        return $this->field('suggested_id');
    }

    public function state(): ClaimState
    {
        return ClaimState::from($this->text('state'));
    }

    public function givenName(): string
    {
        return $this->text('given_name');
    }

    public function familyName(): string
    {
        return $this->text('family_name');
    }

    public function email(): string
    {
        return $this->text('email');
    }

    public function phone(): ?string
    {
        return $this->field('phone');
    }
}
