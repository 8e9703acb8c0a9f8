<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That somebody is in a section, from a day until the day before another. */
final readonly class Enrollment extends Record
{
    public static function entity(): Entity
    {
        return Entity::Enrollment;
    }

    public function sectionId(): string
    {
        return $this->text('section_id');
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function role(): EnrollmentRole
    {
        return EnrollmentRole::from($this->text('role'));
    }

    public function beginsOn(): string
    {
        return $this->text('begins_on');
    }

    public function endsOn(): ?string
    {
        return $this->field('ends_on');
    }

    /**
     * Whether it holds on a day, or is going to: spans are half-open, `ends_on` is the first day they are not in any
     * more.
     */
    public function lastsBeyond(string $day): bool
    {
        return $this->endsOn() === null || $this->endsOn() > $day;
    }

    public function joinCodeId(): ?string
    {
        return $this->field('join_code_id');
    }
}
