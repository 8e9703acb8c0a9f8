<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A year of a school; one of them is current. */
final readonly class SchoolYear extends Record
{
    public static function entity(): Entity
    {
        return Entity::SchoolYear;
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    public function name(): string
    {
        return $this->text('name');
    }

    public function beginsOn(): string
    {
        return $this->text('begins_on');
    }

    public function endsOn(): string
    {
        return $this->text('ends_on');
    }

    public function state(): YearState
    {
        return YearState::from($this->text('state'));
    }
}
