<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** One column of a list: its heading, samples, what it is taken for and why. */
final readonly class Column
{
    /** @param  list<string>  $samples up to three different cells */
    public function __construct(
        public int $index,
        public string $heading,
        public array $samples,
        public ?Field $field,
        public string $why,
    ) {
    }
}
