<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Somebody who stands at the door of a section. */
final readonly class JoinRequest extends Record
{
    public static function entity(): Entity
    {
        return Entity::JoinRequest;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    public function joinCodeId(): ?string
    {
        return $this->field('join_code_id');
    }

    public function personId(): ?string
    {
        return $this->field('person_id');
    }

    public function signInId(): ?string
    {
        return $this->field('sign_in_id');
    }

    public function state(): RequestState
    {
        return RequestState::from($this->text('state'));
    }

    public function cause(): RequestCause
    {
        return RequestCause::from($this->text('cause'));
    }

    public function givenName(): string
    {
        return $this->text('given_name');
    }

    public function familyName(): string
    {
        return $this->text('family_name');
    }

    public function birthDate(): ?string
    {
        return $this->field('birth_date');
    }

    public function number(): ?string
    {
        return $this->field('number');
    }

    public function email(): ?string
    {
        return $this->field('email');
    }

    public function password(): ?string
    {
        return $this->field('password');
    }

    public function madeAt(): string
    {
        return $this->text('made_at');
    }

    public function answeredAt(): ?string
    {
        return $this->field('answered_at');
    }

    public function answeredBy(): ?string
    {
        return $this->field('answered_by');
    }
}
