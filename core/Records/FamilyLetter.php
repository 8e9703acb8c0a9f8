<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A letter to the family of a student: its code, and the slip that comes back signed. */
final readonly class FamilyLetter extends Record
{
    public static function entity(): Entity
    {
        return Entity::FamilyLetter;
    }

    public function studentId(): string
    {
        return $this->text('student_id');
    }

    public function state(): LiveState
    {
        return LiveState::from($this->text('state'));
    }

    public function slip(): string
    {
        return $this->text('slip');
    }

    /** UTC instant; null while the slip is out. */
    public function returnedAt(): ?string
    {
        return $this->field('returned_at');
    }
}
