<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Rows of a file in a sentence. */
final class RowNumbers
{
    private const MOST = 12;

    /**
     * "Row 3 is left out", "Rows 3, 9 of Sheet 2 and 40 more are left out".
     *
     * @param  non-empty-list<int>  $numbers
     * @param  string  $of " of Sheet 2", '' where there is one sheet
     * @param  string  $one what is said of one row
     * @param  string  $several what is said of several
     */
    public static function sentence(array $numbers, string $of, string $one, string $several): string
    {
        $more = count($numbers) - self::MOST;

        return (count($numbers) === 1 ? 'Row ' : 'Rows ') .
            implode(', ', array_slice($numbers, 0, self::MOST)) .
            ($more > 0 ? " and $more more" : '') .
            "$of " .
            (count($numbers) === 1 ? $one : $several);
    }
}
