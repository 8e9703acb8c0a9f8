<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

/** Dates as lists hold them: ISO 8601, day and month in either order, spreadsheet serials of the 1900 system. */
final class CalendarDate
{
    /** What a serial number can be and still be a date of someone's life: 1 January 1920 to 31 December 2059. */
    private const SERIALS = [7306, 58439];

    /**
     * @param  bool|null  $dayFirst how 03/04/2015 is to be read; null if the list does not say
     * @return string|null YYYY-MM-DD, or null if it is no date, or one that can be read two ways
     */
    public static function read(string $cell, ?bool $dayFirst): ?string
    {
        $cell = trim($cell);
        if (preg_match('/^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ]00:00(?::00)?(?:\.0+)?)?$/', $cell, $m) === 1) {
            return self::valid((int) $m[1], (int) $m[2], (int) $m[3]);
        }
        if (preg_match('/^\d{4,5}(?:\.0+)?$/', $cell) === 1 && (int) $cell >= self::SERIALS[0] && (int) $cell <= self::SERIALS[1]) {
            // Serial 60 is the 29 February 1900 that never was; from 61 on the count is from 30 December 1899.
            return gmdate('Y-m-d', ((int) $cell - 25569) * 86400);
        }
        if (preg_match('#^(\d{1,2})[/.\-](\d{1,2})[/.\-](\d{4}|\d{2})$#', $cell, $m) === 1) {
            $year = (int) $m[3];
            $year += strlen($m[3]) === 2 ? ($year > 40 ? 1900 : 2000) : 0;
            [$a, $b] = [(int) $m[1], (int) $m[2]];
            if ($a > 12 || ($dayFirst === true && $b <= 12)) {
                return self::valid($year, $b, $a);
            }
            if ($b > 12 || $dayFirst === false || $a === $b) {
                return self::valid($year, $a, $b);
            }
        }

        return null;
    }

    /**
     * Whether a column writes the day first: settled by one cell whose other part is over 12.
     *
     * @param  iterable<string>  $cells
     * @return bool|null null if no cell settles it, or cells contradict each other
     */
    public static function dayFirst(iterable $cells): ?bool
    {
        $day = $month = false;
        foreach ($cells as $cell) {
            if (preg_match('#^\s*(\d{1,2})[/.\-](\d{1,2})[/.\-]\d{2,4}\s*$#', $cell, $m) === 1) {
                $day = $day || (int) $m[1] > 12;
                $month = $month || (int) $m[2] > 12;
            }
        }

        return $day === $month ? null : $day;
    }

    private static function valid(int $year, int $month, int $day): ?string
    {
        return checkdate($month, $day, $year) ? sprintf('%04d-%02d-%02d', $year, $month, $day) : null;
    }
}
