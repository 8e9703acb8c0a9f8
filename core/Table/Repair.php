<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** A cell that was read otherwise than it is written, and can be read as written again. */
final readonly class Repair
{
    /**
     * @param  string  $key of this cell, for {@see ReadingAnswers::keeps}
     * @param  string  $columnKey of its whole column
     * @param  string  $kind what was mended, in a word or two
     */
    public function __construct(
        public string $key,
        public string $columnKey,
        public string $column,
        public string $kind,
        public string $before,
        public string $after,
    ) {}
}
