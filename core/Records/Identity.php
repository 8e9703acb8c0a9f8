<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Somebody as the school's own sign-on knows them. */
final readonly class Identity extends Record
{
    public static function entity(): Entity
    {
        return Entity::Identity;
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function madeAt(): string
    {
        return $this->text('made_at');
    }

    public function state(): LiveState
    {
        return LiveState::from($this->text('state'));
    }
}
