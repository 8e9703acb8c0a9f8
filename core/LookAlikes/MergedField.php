<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

/** One field of two accounts that become one. */
final readonly class MergedField
{
    /**
     * @param  string  $column of the person
     * @param  string  $survivor its value on the account that stays, '' for none
     * @param  string  $other its value on the account that goes
     * @param  string  $stays the value afterwards
     */
    public function __construct(
        public string $column,
        public string $label,
        public string $survivor,
        public string $other,
        public string $stays,
    ) {}

    public function agrees(): bool
    {
        return $this->survivor === $this->other;
    }
}
