<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\GradeLevel;

/** Whose whole list a list is: a school's, a grade's or a section's. */
final readonly class Scope
{
    /**
     * @param  string|null  $grade stored code, for a grade's list
     * @param  string|null  $sectionId for a section's list
     */
    private function __construct(public ?string $grade, public ?string $sectionId) {}

    /**
     * Reads `school`, `grade:04` or `section:ID`.
     *
     * @throws Refusal for anything else
     */
    public static function read(string $text): self
    {
        $grade = str_starts_with($text, 'grade:') ? GradeLevel::read(substr($text, 6)) : null;

        return match (true) {
            $text === 'school' => new self(null, null),
            $grade !== null => new self($grade->code(), null),
            str_starts_with($text, 'section:') && strlen($text) > 8 => new self(null, substr($text, 8)),
            default => throw new Refusal("“{$text}” is no scope. Use school, grade:04 or section:ID."),
        };
    }

    public function __toString(): string
    {
        return $this->sectionId !== null
            ? "section:$this->sectionId"
            : ($this->grade !== null
                ? "grade:$this->grade"
                : 'school');
    }
}
