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

    /** YYYY-MM-DD; null of a notice. */
    public function day(): ?string
    {
        return $this->field('on_day');
    }

    /** The id it has in a gradebook; null where it was written here. */
    public function sourceKey(): ?string
    {
        return $this->field('source_key');
    }

    public function body(): string
    {
        return (string) $this->field('body');
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
