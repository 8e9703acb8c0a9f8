<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What opens a room's tablets for the students of a section. */
final readonly class RoomPass extends Record
{
    public static function entity(): Entity
    {
        return Entity::RoomPass;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    public function state(): LiveState
    {
        return LiveState::from($this->text('state'));
    }

    public function hours(): PassHours
    {
        return PassHours::from($this->text('hours'));
    }

    public function pictures(): bool
    {
        return $this->text('pictures') === '1';
    }

    public function madeAt(): string
    {
        return $this->text('made_at');
    }

    public function endsAt(): ?string
    {
        return $this->field('ends_at');
    }
}
