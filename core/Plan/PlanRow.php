<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Table\Repair;

/**
 * One line of the plan view: a row of the list, or a person or section the plan touches.
 */
final readonly class PlanRow
{
    /**
     * @param  int  $number the row's number in the file, or its place in the plan
     * @param  array<string, Cell>  $cells heading to cell, the same headings in every row of a plan
     * @param  string  $why in a few words
     * @param  list<Problem>  $problems
     * @param  list<Evidence>  $evidence of the match, empty where none was made
     * @param  string  $sheet the row stands in, '' where the file has one only
     * @param  list<Repair>  $repairs cells read otherwise than they are written
     */
    public function __construct(
        public int $number,
        public Verdict $verdict,
        public array $cells,
        public string $why = '',
        public array $problems = [],
        public ?string $matchId = null,
        public ?string $matchNumber = null,
        public ?float $probability = null,
        public array $evidence = [],
        public ?string $question = null,
        public string $sheet = '',
        public array $repairs = [],
    ) {}
}
