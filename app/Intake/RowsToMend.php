<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Intake;
use App\Platform\SheetFormat;
use App\Platform\SheetOut;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\ListLayout;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Sheet;

/**
 * The rows of a list that need work, as a workbook: each cell as it was written, those with a problem marked, and
 * beside each row what to do. Mended and dropped in again it is a list of just those rows.
 */
final class RowsToMend
{
    public const COLUMN = 'What to do';

    public function __construct(private readonly IntakePlans $planner) {}

    public function write(Intake $intake, string $path): void
    {
        $book = $this->planner->book($intake);
        $rows = [];
        foreach (
            DB::table('import_rows')
                ->where('import_id', $intake->id)
                ->whereIn('verdict', ['cannot', 'ask'])
                ->orderBy('id')
                ->get(['sheet', 'number', 'content'])
            as $row
        ) {
            $rows[$row->sheet][$row->number] = json_decode($row->content, false, 64, JSON_THROW_ON_ERROR);
        }
        $sheets = [];
        foreach ($book->layouts as $i => $layout) {
            $label = BookReader::label($book->sheets, $i);
            if (isset($rows[mb_substr($label, 0, 160)])) {
                $sheets[$label === '' ? 'To mend' : $label] = self::sheet(
                    $book->sheets[$i],
                    $layout,
                    $rows[mb_substr($label, 0, 160)],
                );
            }
        }
        SheetOut::write(SheetFormat::Xlsx, $path, $sheets === [] ? ['To mend' => [[self::COLUMN], []]] : $sheets);
    }

    /**
     * @param  array<int, \stdClass>  $rows by number in the file
     * @return array{list<string>, list<list<string>>, array<int, array<int, true>>}
     */
    private static function sheet(Sheet $sheet, ListLayout $layout, array $rows): array
    {
        $headings = array_map(
            fn(Column $c): string => $c->heading !== '' ? $c->heading : $c->field?->label() ?? '',
            $layout->columns,
        );
        $lines = $marks = [];
        foreach ($layout->body($sheet->grid) as $line) {
            $row = $rows[$line->number] ?? null;
            if ($row === null) {
                continue;
            }
            $says = [];
            foreach ($row->problems as $problem) {
                $at = self::columnOf($layout, $problem->column);
                if ($at !== null) {
                    $marks[count($lines)][$at] = true;
                }
                $says[] = ($problem->column === '' ? '' : "$problem->column: ") . $problem->message;
            }
            $cells = array_map(fn(Column $c): string => $line->cell($c->index), $layout->columns);
            $lines[] = [
                ...$cells,
                $says === []
                    ? ucfirst($row->why) .
                        '. Answer the question in the plan, or add what tells the two apart (number, birth date).'
                    : implode(' ', $says),
            ];
        }

        return [[...$headings, self::COLUMN], $lines, $marks];
    }

    private static function columnOf(ListLayout $layout, string $named): ?int
    {
        foreach ($layout->columns as $column) {
            if (
                $named !== '' &&
                ($column->name() === $named ||
                    ($column->field !== null && NameKey::of($column->field->label()) === NameKey::of($named)))
            ) {
                return $column->index;
            }
        }

        return $named === ''
            ? null
            : $layout->indexOf(Field::tryFrom(str_replace([' ', '-'], ['_', ''], $named)) ?? Field::FullName);
    }
}
