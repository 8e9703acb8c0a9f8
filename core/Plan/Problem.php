<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/**
 * Something wrong in one cell: where it is and what to do. `column` is the heading of the list, or '' for the whole
 * row.
 */
final readonly class Problem
{
    /** @param  bool  $stops whether it keeps the row out; otherwise the cell alone is left out */
    public function __construct(public string $column, public string $message, public bool $stops = true) {}
}
