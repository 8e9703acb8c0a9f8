<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * What one field says on whether two records are one person: the two values, how they agree, and the weight in bits.
 */
final readonly class Evidence
{
    /**
     * @param float $weight log2(m/u): above 0 speaks for the same person, below 0 against, 0 where a side is missing
     */
    public function __construct(
        public string $field,
        public string $left,
        public string $right,
        public string $level,
        public float $weight,
    ) {}
}
