<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A homeroom or a class of one year. */
final readonly class Section extends Record
{
    public static function entity(): Entity
    {
        return Entity::Section;
    }

    public function schoolId(): string
    {
        return $this->text('school_id');
    }

    public function schoolYearId(): string
    {
        return $this->text('school_year_id');
    }

    public function name(): string
    {
        return $this->text('name');
    }

    public function kind(): SectionKind
    {
        return SectionKind::from($this->text('kind'));
    }

    public function grade(): ?string
    {
        return $this->field('grade');
    }

    public function period(): ?string
    {
        return $this->field('period');
    }

    public function seats(): ?int
    {
        return $this->whole('seats');
    }

    public function state(): SectionState
    {
        return SectionState::from($this->text('state'));
    }

    public function archivedOn(): ?string
    {
        return $this->field('archived_on');
    }
}
