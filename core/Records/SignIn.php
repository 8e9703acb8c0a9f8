<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A user name with what opens it. A person may have several, after a merge. */
final readonly class SignIn extends Record
{
    public static function entity(): Entity
    {
        return Entity::SignIn;
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function userName(): string
    {
        return $this->text('user_name');
    }

    public function passphrase(): ?string
    {
        return $this->field('passphrase');
    }

    public function password(): ?string
    {
        return $this->field('password');
    }

    /** Whether the password was chosen at a door by somebody who did not show who they are. */
    public function isUnproven(): bool
    {
        return $this->whole('unproven') === 1;
    }

    public function lastSignedInAt(): ?string
    {
        return $this->field('last_signed_in_at');
    }
}
