<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/** Someone known who may be the person of a row, how likely, and why. */
final readonly class Candidate
{
    /**
     * @param  list<Evidence>  $evidence
     * @param  float  $probability posterior, 0 to 1, all others known and nobody known weighed in
     * @param  string  $caution why it must not be settled without a person, '' if nothing speaks against
     */
    public function __construct(
        public Subject $subject,
        public array $evidence,
        public float $probability,
        public string $caution,
    ) {}

    public function sure(): bool
    {
        return $this->probability >= Matcher::SAME && $this->caution === '';
    }
}
