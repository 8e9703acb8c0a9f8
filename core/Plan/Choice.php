<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** One way to answer a question, with what it would do. */
final readonly class Choice
{
    /**
     * @param string $kind the same for choices of other questions that mean the same, so that a pattern can be answered
     *     alike
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $consequence = '',
        public string $kind = '',
    ) {}
}
