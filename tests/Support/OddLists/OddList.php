<?php

declare(strict_types=1);

namespace Tests\Support\OddLists;

use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;

/** A made-up list with all its oddities, and what it truly says. */
final readonly class OddList
{
    /**
     * @param  list<list<string>>  $rows
     * @param  list<Child>  $children
     * @param  array<string, string>  $drawn which layout, headings, names, values and damage it has
     */
    public function __construct(public array $rows, public array $children, public array $drawn) {}

    public function sheet(): Sheet
    {
        return new Sheet(
            '',
            Grid::of(
                array_map(
                    fn(array $cells, int $i): Line => new Line($i + 1, $cells),
                    $this->rows,
                    array_keys($this->rows),
                ),
            ),
            'List',
        );
    }
}
