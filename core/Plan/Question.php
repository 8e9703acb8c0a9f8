<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Matching\Evidence;

/**
 * Something only a person can decide. The id stays the same when the plan is made again from the same facts,
 * so that answers survive.
 */
final readonly class Question
{
    /**
     * @param  list<Choice>  $choices in the order of their number keys
     * @param  list<Evidence>  $evidence
     * @param  float|null  $probability that the two are one person, 0 to 1, where that is what is asked
     */
    public function __construct(
        public string $id,
        public ?int $row,
        public string $text,
        public string $detail,
        public array $choices,
        public array $evidence = [],
        public ?float $probability = null,
        public ?string $answer = null,
    ) {
    }

    public function open(): bool
    {
        return $this->answer === null;
    }
}
