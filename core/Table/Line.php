<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** One row of a list: its number in the file, counted from 1, and its cells as text. */
final readonly class Line
{
    /**
     * @param  list<string>  $cells
     * @param  array<int, string>  $flaws place of the cell to what is wrong with it, as found while reading the file
     */
    public function __construct(public int $number, public array $cells, public array $flaws = []) {}

    public function cell(int $column): string
    {
        return $this->cells[$column] ?? '';
    }

    public function isBlank(): bool
    {
        foreach ($this->cells as $cell) {
            if (trim($cell) !== '') {
                return false;
            }
        }

        return $this->flaws === [];
    }
}
