<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/** A section that a row puts a student into: one that is there, or one the plan makes. */
final readonly class SectionPlace
{
    public function __construct(
        public string $sectionId,
        public string $name,
        public bool $homeroom,
        public ?string $grade,
    ) {}
}
