<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Notes, while the tables of a sheet are looked for, which rows were taken for what, and what was read from above. */
final class Bands
{
    /** @var array<int, array{RowPart, string}> number of the row to what it is, and why */
    private array $rows = [];

    /** @var array<int, array<int, string>> number of the row to column of the sheet to what it is read as */
    private array $filled = [];

    /** @param  string  $why a sentence's part: "it holds a total" */
    public function mark(int $row, RowPart $part, string $why): void
    {
        $this->rows[$row] = [$part, $why];
    }

    public function fill(int $row, int $place, string $value): void
    {
        $this->filled[$row][$place] = $value;
    }

    public function part(int $row): ?RowPart
    {
        return $this->rows[$row][0] ?? null;
    }

    public function why(int $row): string
    {
        return $this->rows[$row][1] ?? '';
    }

    /** @return array<int, string> column of the sheet to what the row takes over from the one above */
    public function filled(int $row): array
    {
        return $this->filled[$row] ?? [];
    }
}
