<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Evidence;

/** Two accounts that may be one child. */
final readonly class LookAlike
{
    /**
     * @param  list<Evidence>  $evidence
     * @param  int  $accounts of the cluster the two belong to, all of them likely one child
     * @param  string  $facts of the two, as {@see ToldApart::facts()} sums them up
     */
    public function __construct(
        public string $leftId,
        public string $rightId,
        public float $probability,
        public string $caution,
        public array $evidence,
        public int $accounts = 2,
        public string $facts = '',
    ) {}

    /** The same pair in a cluster of so many. */
    public function of(int $accounts): self
    {
        return new self(
            $this->leftId,
            $this->rightId,
            $this->probability,
            $this->caution,
            $this->evidence,
            $accounts,
            $this->facts,
        );
    }
}
