<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What one school asks of another about a student. */
final readonly class TransferRequest extends Record
{
    public static function entity(): Entity
    {
        return Entity::TransferRequest;
    }

    public function personId(): string
    {
        return $this->text('person_id');
    }

    public function fromSchoolId(): string
    {
        return $this->text('from_school_id');
    }

    public function toSchoolId(): string
    {
        return $this->text('to_school_id');
    }

    public function kind(): TransferKind
    {
        return TransferKind::from($this->text('kind'));
    }

    public function state(): TransferState
    {
        return TransferState::from($this->text('state'));
    }

    public function said(): string
    {
        return $this->text('said');
    }

    public function askedBy(): ?string
    {
        return $this->field('asked_by');
    }

    public function madeAt(): string
    {
        return $this->text('made_at');
    }

    public function answeredAt(): ?string
    {
        return $this->field('answered_at');
    }
}
