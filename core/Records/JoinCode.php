<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A code by which students come into a section. */
final readonly class JoinCode extends Record
{
    public static function entity(): Entity
    {
        return Entity::JoinCode;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    public function state(): CodeState
    {
        return CodeState::from($this->text('state'));
    }

    public function who(): CodeUse
    {
        return CodeUse::from($this->text('who'));
    }

    public function startsAt(): ?string
    {
        return $this->field('starts_at');
    }

    public function endsAt(): ?string
    {
        return $this->field('ends_at');
    }

    public function cap(): ?int
    {
        return $this->whole('cap');
    }
}
