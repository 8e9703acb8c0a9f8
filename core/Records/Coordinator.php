<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That somebody coordinates a school. */
final readonly class Coordinator extends Record
{
    public static function entity(): Entity
    {
        return Entity::Coordinator;
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    public function state(): RoleState
    {
        return RoleState::from($this->text('state'));
    }
}
