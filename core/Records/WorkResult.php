<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whether one student has handed in one piece of work. */
final readonly class WorkResult extends Record
{
    public static function entity(): Entity
    {
        return Entity::WorkResult;
    }

    public function workId(): string
    {
        return $this->text('notice_id');
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function state(): WorkState
    {
        return WorkState::from($this->text('state'));
    }
}
