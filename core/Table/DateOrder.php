<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Values\CalendarDate;

/**
 * Which way round day and month stand in a sheet: settled by one date of any of its columns that can be read one way
 * only.
 */
final class DateOrder
{
    /**
     * @param  list<Column>  $columns
     * @param  list<Line>  $body
     */
    public static function dayFirst(array $columns, array $body): ?bool
    {
        $cells = [];
        foreach ($columns as $column) {
            // "DOB (DD/MM/YYYY)", "Né le (jj/mm/aaaa)", "Geboren (TT.MM.JJJJ)".
            if (preg_match('/\b(d{1,2}|jj|tt|dd)[\/.\- ]*m{1,2}\b/i', $column->heading) === 1) {
                return true;
            }
            if (preg_match('/\bm{1,2}[\/.\- ]*d{1,2}\b/i', $column->heading) === 1) {
                return false;
            }
        }
        foreach ($columns as $column) {
            $own = array_map(fn(Line $l): string => $l->bare($column->index), $body);
            $filled = array_values(array_filter($own, fn(string $s): bool => $s !== ''));
            // Dates that nothing is read from were written by the same hand.
            if (
                in_array($column->field, [Field::BirthDate, Field::BeginsOn, Field::EndsOn], true) ||
                ($column->field === null && ColumnContents::share($filled, CalendarDate::looksLikeOne(...)) > 0.9)
            ) {
                $cells = [...$cells, ...$own];
            }
        }

        return CalendarDate::dayFirst($cells);
    }
}
