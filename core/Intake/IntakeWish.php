<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Records\Person;

/** Where a list belongs, how it is to be read, and what a person has answered so far. */
final readonly class IntakeWish
{
    /**
     * @param  string  $title how the list is called, its file name as a rule
     * @param  string  $today the day on which enrollments begin and end, YYYY-MM-DD
     * @param  array<string, string>  $answers question id to key of the choice
     * @param  Scope|null  $everyone whose whole list this is, so that who is missing leaves; null for additions
     * @param  list<string>  $own other schools whose people the list may write: those its maker coordinates too
     * @param  string|null  $madeBy id of whoever brings it in
     * @param  bool  $byPreferred whether user names are made from the name somebody goes by
     * @param  array<string, list<string>>  $taken addresses of the list to the ids of active accounts that have them
     *     confirmed
     * @param  string  $confirmed the words a person typed to go past the trip-wire, '' for none
     */
    public function __construct(
        public string $title,
        public string $schoolId,
        public string $yearId,
        public string $today,
        public array $answers = [],
        public SchoolFacts $school = new SchoolFacts(),
        public ?Scope $everyone = null,
        public string $confirmed = '',
        public array $own = [],
        public ?string $madeBy = null,
        public bool $byPreferred = false,
        public array $taken = [],
    ) {}

    /** A list changes only its own school's people, and shows nothing of others. */
    public function writes(Person $person): bool
    {
        return $person->schoolId() === $this->schoolId || in_array($person->schoolId(), $this->own, true);
    }
}
