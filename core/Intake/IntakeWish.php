<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/** Where a list belongs, how it is to be read, and what a person has answered so far. */
final readonly class IntakeWish
{
    /**
     * @param  string  $title how the list is called, its file name as a rule
     * @param  string  $today the day on which enrollments begin and end, YYYY-MM-DD
     * @param  array<string, string>  $answers question id to key of the choice
     * @param  Scope|null  $everyone whose whole list this is, so that who is missing leaves; null for additions
     * @param  string  $confirmed the words a person typed to go past the trip-wire, '' for none
     */
    public function __construct(
        public string $title,
        public string $schoolId,
        public string $yearId,
        public string $today,
        public array $answers = [],
        public SchoolFacts $school = new SchoolFacts,
        public ?Scope $everyone = null,
        public string $confirmed = '',
    ) {
    }
}
