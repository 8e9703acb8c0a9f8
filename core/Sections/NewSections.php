<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Plan\Refusal;

/** Sections to be made together, in one school and year. */
final readonly class NewSections
{
    /** As many as are made at a time. */
    public const MOST = 500;

    /**
     * @param  list<NewSection>  $sections
     * @param  string  $beginsOn first day of those who teach them, YYYY-MM-DD
     *
     * @throws Refusal
     */
    public function __construct(
        public string $schoolId,
        public string $yearId,
        public array $sections,
        public string $beginsOn,
    ) {
        if ($sections === []) {
            throw new Refusal('Name at least one section.', 'text');
        }
        if (count($sections) > self::MOST) {
            throw new Refusal('Make up to ' . self::MOST . ' sections at a time.', 'text');
        }
    }
}
