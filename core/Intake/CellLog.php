<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Repair;

/** What became of the cells of one table that were not simply read: mended, asked about, or left out and why. */
final class CellLog
{
    /** @var array<int, string> number of a row to why nothing is made of it */
    private array $rows = [];

    /** @var array<int, array<int, string>> number of a row to column to why nothing is made of the cell */
    private array $cells = [];

    /** @var array<int, list<Repair>> */
    private array $repairs = [];

    /** @var array<int, list<Problem>> */
    private array $problems = [];

    /** @var array<int, true> columns of which at least one cell was asked for */
    private array $used = [];

    public function leftRow(int $row, string $why): void
    {
        $this->rows[$row] = $why;
    }

    /** Number of a row that names nobody though it says something; null where it says nothing that was looked for. */
    public function nobody(Line $line, ListLayout $layout): ?int
    {
        $this->rows[$line->number] = 'it names nobody';
        foreach ($layout->columns as $column) {
            if ($column->field !== null && $line->bare($column->index) !== '') {
                return $line->number;
            }
        }

        return null;
    }

    /**
     * Closes a row.
     *
     * @param  array<int, string|null>  $read column to why its cell says nothing, null where it says something; those
     *     that nobody asked for are absent
     * @param  list<Repair>  $repairs
     * @param  list<Problem>  $problems
     */
    public function close(Line $line, ListLayout $layout, array $read, array $repairs, array $problems): void
    {
        $this->used += array_fill_keys(array_keys($read), true);
        if ($repairs !== []) {
            $this->repairs[$line->number] = $repairs;
        }
        if ($problems !== []) {
            $this->problems[$line->number] = $problems;
        }
        foreach ($layout->columns as $column) {
            if ($column->field === null || !isset($line->cells[$column->index])) {
                continue;
            }
            if (!array_key_exists($column->index, $read)) {
                if (trim($line->cells[$column->index]) !== '') {
                    $this->cells[$line->number][$column->index] = 'nothing is read from it in this row';
                }
            } elseif ($read[$column->index] !== null) {
                $this->cells[$line->number][$column->index] = $read[$column->index];
            }
        }
    }

    /** @return list<string> columns with a meaning that a list of its kind makes nothing of */
    public function unused(ListLayout $layout): array
    {
        return array_values(
            array_map(
                fn(Column $c): string => $c->name(),
                array_filter(
                    $layout->columns,
                    fn(Column $c): bool => $c->field !== null && $c->samples !== [] && !isset($this->used[$c->index]),
                ),
            ),
        );
    }

    public function whyRow(int $row): ?string
    {
        return $this->rows[$row] ?? null;
    }

    public function whyCell(int $row, int $column): ?string
    {
        return $this->cells[$row][$column] ?? null;
    }

    /** @return list<Repair> */
    public function repairs(int $row): array
    {
        return $this->repairs[$row] ?? [];
    }

    /** @return list<Problem> */
    public function problems(int $row): array
    {
        return $this->problems[$row] ?? [];
    }
}
