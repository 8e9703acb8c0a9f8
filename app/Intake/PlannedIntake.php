<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Plan\Plan;

final readonly class PlannedIntake
{
    /**
     * @param array<string, string> $answers what was said and answered, with what was remembered of files of the same
     *     shape
     * @param  string|null  $rosterOf id of the section whose roster this is, as it went out and came back
     * @param  list<string>  $others other schools whose people the plan speaks of
     * @param  list<string>  $domains mail domains that most of the list uses and the school has not named
     */
    public function __construct(
        public BookReader $book,
        public Plan $plan,
        public array $answers,
        public array $domains,
        public ?string $rosterOf = null,
        public array $others = [],
    ) {}
}
