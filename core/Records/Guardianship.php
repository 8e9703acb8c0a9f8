<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That somebody is a student's guardian. */
final readonly class Guardianship extends Record
{
    public static function entity(): Entity
    {
        return Entity::Guardianship;
    }

    public function studentId(): string
    {
        return $this->text('student_id');
    }

    public function guardianId(): string
    {
        return $this->text('guardian_id');
    }

    public function relationship(): ?string
    {
        return $this->field('relationship');
    }

    /** Why this guardian has no contact with the student through the school; null where they have. */
    public function restriction(): ?string
    {
        return $this->field('restriction');
    }

    public function state(): GuardianshipState
    {
        return GuardianshipState::from($this->text('state'));
    }
}
