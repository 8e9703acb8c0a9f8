<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That a student, or a family of theirs, was asked into a section by a link to their address. */
final readonly class StudentInvitation extends Record
{
    public static function entity(): Entity
    {
        return Entity::StudentInvitation;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    /** Null where it was sent to an address that nobody on record has. */
    public function personId(): ?string
    {
        return $this->field('person_id');
    }

    /** The guardian it was sent to; null where it was sent to the student, or to an address nobody on record has. */
    public function guardianId(): ?string
    {
        return $this->field('guardian_id');
    }

    public function joinRequestId(): ?string
    {
        return $this->field('join_request_id');
    }

    public function email(): string
    {
        return $this->text('email');
    }

    /** What was typed to invite them: an address, a number or a user name. */
    public function typed(): string
    {
        return $this->text('typed');
    }

    public function isFamily(): bool
    {
        return $this->text('reader') === 'family';
    }

    /** A tag. */
    public function language(): string
    {
        return $this->text('language');
    }

    public function state(): StudentInvitationState
    {
        return StudentInvitationState::from($this->text('state'));
    }

    /** UTC instant. */
    public function sentAt(): string
    {
        return $this->text('sent_at');
    }

    /** UTC instant from which the link opens nothing. */
    public function expiresAt(): string
    {
        return $this->text('expires_at');
    }
}
