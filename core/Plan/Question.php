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
     * @param  string  $sheet the row stands in, '' where the file has one only
     * @param  string  $pattern questions of one pattern can be answered alike; '' where each stands for itself
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
        public string $sheet = '',
        public string $pattern = '',
    ) {}

    /**
     * What it asks and what the answer was. How likely it is moves a little with whoever comes to the district, and is
     * no reason to look at a list anew.
     *
     * @return list<mixed>
     */
    public function asks(): array
    {
        return [$this->id, $this->row, $this->text, $this->detail, $this->choices, $this->answer, $this->sheet];
    }

    public function open(): bool
    {
        return $this->answer === null;
    }

    public function answered(?string $answer): self
    {
        foreach ($this->choices as $choice) {
            if ($choice->key === $answer) {
                return new self(
                    $this->id,
                    $this->row,
                    $this->text,
                    $this->detail,
                    $this->choices,
                    $this->evidence,
                    $this->probability,
                    $answer,
                    $this->sheet,
                    $this->pattern,
                );
            }
        }

        return $this;
    }
}
