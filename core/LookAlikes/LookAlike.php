<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Matcher;

/** Two accounts that may be one person. */
final readonly class LookAlike
{
    /**
     * @param  list<Evidence>  $evidence
     * @param  int  $accounts of the cluster the two belong to, all of them likely one person
     * @param  string  $cluster the smallest id of its accounts, '' where that is not known
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
        public string $cluster = '',
    ) {}

    /** Whether it needs no second thought: as likely as what a list is matched by, and nothing speaks against it. */
    public function isClear(): bool
    {
        return $this->probability >= Matcher::SAME && $this->caution === '';
    }

    /** The same pair, with something to be careful of. */
    public function but(string $caution): self
    {
        return new self(
            $this->leftId,
            $this->rightId,
            $this->probability,
            $caution,
            $this->evidence,
            $this->accounts,
            $this->facts,
            $this->cluster,
        );
    }

    /** The same pair in a cluster of so many. */
    public function of(string $cluster, int $accounts): self
    {
        return new self(
            $this->leftId,
            $this->rightId,
            $this->probability,
            $this->caution,
            $this->evidence,
            $accounts,
            $this->facts,
            $cluster,
        );
    }
}
