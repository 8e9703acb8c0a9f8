<?php

declare(strict_types=1);

namespace Vantrel\Core\YearTurn;

use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Plan\Refusal;

/** How a school's year is to be turned. */
final readonly class YearTurnWish
{
    /**
     * @param  list<int>  $grades the school's grades by order (0 is kindergarten), lowest first
     * @param  list<string>  $heldBack ids of students who stay in their grade
     * @param  string  $nextBegins first day of the next year, YYYY-MM-DD
     * @param  string  $nextEnds day after its last
     * @param  string  $today the day at the school: sections are archived and teachers of carried ones begin on it
     * @param  string  $now UTC instant
     *
     * @throws Refusal where it ends before it begins
     */
    public function __construct(
        public string $schoolId,
        public string $fromYearId,
        public string $nextName,
        public string $nextBegins,
        public string $nextEnds,
        public array $grades,
        public array $heldBack,
        public bool $carrySections,
        public string $today,
        public string $now,
        public int $importsBeingApplied = 0,
    ) {
        // Two days at least: what ends on the day it begins holds nobody.
        if (Span::last($nextEnds) <= $nextBegins) {
            throw new Refusal('The year ends before it begins.', 'last');
        }
    }
}
