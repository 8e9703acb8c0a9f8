<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That somebody was asked to teach in a section. */
final readonly class Invitation extends Record
{
    public static function entity(): Entity
    {
        return Entity::Invitation;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    public function personId(): ?string
    {
        return $this->field('person_id');
    }

    public function email(): string
    {
        return $this->text('email');
    }

    public function role(): EnrollmentRole
    {
        return EnrollmentRole::from($this->text('role'));
    }

    public function beginsOn(): ?string
    {
        return $this->field('begins_on');
    }

    public function endsOn(): ?string
    {
        return $this->field('ends_on');
    }

    public function state(): InvitationState
    {
        return InvitationState::from($this->text('state'));
    }

    public function expiresAt(): string
    {
        return $this->text('expires_at');
    }

    public function answeredAt(): ?string
    {
        return $this->field('answered_at');
    }
}
