<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

/** One field of accounts that become one. */
final readonly class MergedField
{
    /**
     * @param  string  $column of the person
     * @param  array<string, string>  $values by account, that of the one that stays first; '' for none
     * @param  string  $stays the value afterwards
     * @param  string  $why that one; '' where there is nothing to choose
     */
    public function __construct(
        public string $column,
        public string $label,
        public array $values,
        public string $stays,
        public string $why = '',
    ) {}

    public function agrees(): bool
    {
        return count(array_unique($this->values)) === 1;
    }
}
