<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/** Where a list belongs, and what a person has answered so far. */
final readonly class IntakeWish
{
    /**
     * @param  string  $title how the list is called, its file name as a rule
     * @param  string  $today the day on which enrollments begin and end, YYYY-MM-DD
     * @param  array<string, string>  $answers question id to key of the choice
     */
    public function __construct(
        public string $title,
        public string $schoolId,
        public string $yearId,
        public string $today,
        public array $answers = [],
    ) {
    }
}
