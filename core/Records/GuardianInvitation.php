<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That a guardian was asked, by a link to their address, to connect with their children at a school. */
final readonly class GuardianInvitation extends Record
{
    public static function entity(): Entity
    {
        return Entity::GuardianInvitation;
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    public function guardianId(): string
    {
        return $this->text('guardian_id');
    }

    public function email(): string
    {
        return $this->text('email');
    }

    /** open, used or ended; one that is open may have expired. */
    public function state(): GuardianInvitationState
    {
        return GuardianInvitationState::from($this->text('state'));
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

    /** UTC instant; null where nobody was reminded. */
    public function remindedAt(): ?string
    {
        return $this->field('reminded_at');
    }
}
