<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Table\RowPart;

/** A row of a sheet as it came, and what was understood of it. */
final readonly class PicturedRow
{
    /**
     * @param  string  $why the row is what it is, '' for a row of the list
     * @param  list<PicturedCell>  $cells
     * @param  list<string>  $read what was understood, one for each person or section it names
     */
    public function __construct(
        public int $number,
        public RowPart $part,
        public string $why,
        public array $cells,
        public array $read,
    ) {}
}
