<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A card that signs in. */
final readonly class Badge extends Record
{
    public static function entity(): Entity
    {
        return Entity::Badge;
    }

    public function signInId(): string
    {
        return $this->text('sign_in_id');
    }

    public function state(): BadgeState
    {
        return BadgeState::from($this->text('state'));
    }

    public function madeAt(): string
    {
        return $this->text('made_at');
    }
}
