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
            if (in_array($column->field, [Field::BirthDate, Field::BeginsOn, Field::EndsOn], true)) {
                foreach ($body as $line) {
                    $cells[] = $line->cell($column->index);
                }
            }
        }

        return CalendarDate::dayFirst($cells);
    }
}
