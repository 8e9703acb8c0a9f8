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
     */
    public function __construct(
        public string $leftId,
        public string $rightId,
        public float $probability,
        public string $caution,
        public array $evidence,
        public int $accounts = 2,
    ) {}
}
