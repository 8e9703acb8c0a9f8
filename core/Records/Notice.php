<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What a school or a section says to students and families. */
final readonly class Notice extends Record
{
    public static function entity(): Entity
    {
        return Entity::Notice;
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    /** Null for one of the whole school. */
    public function sectionId(): ?string
    {
        return $this->field('section_id');
    }

    public function kind(): NoticeKind
    {
        return NoticeKind::from($this->text('kind'));
    }

    public function title(): string
    {
        return $this->text('title');
    }

    public function isLive(): bool
    {
        return $this->text('state') === 'live';
    }
}
