<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Names\NameKey;

/**
 * Dates as lists hold them: ISO 8601, day and month in either order, month names, spreadsheet serials of both systems.
 */
final class CalendarDate
{
    /** What a serial number can be and still be a date of someone's life: 1 January 1920 to 31 December 2059. */
    private const SERIALS = [7306, 58439];

    /** Days from the start of the 1900 system to that of the 1904 system (ECMA-376 Part 1, 18.17.4.1). */
    public const SYSTEM_1904 = 1462;

    /** First years of the Japanese eras of living people. */
    private const ERAS = ['明治' => 1868, '大正' => 1912, '昭和' => 1926, '平成' => 1989, '令和' => 2019];

    // prettier-ignore
    private const MONTHS = [
        'jan' => 1, 'january' => 1, 'enero' => 1, 'ene' => 1, 'janvier' => 1, 'janv' => 1, 'januar' => 1, 'feb' => 2,
        'february' => 2, 'febrero' => 2, 'fevrier' => 2, 'fevr' => 2, 'februar' => 2, 'mar' => 3, 'march' => 3,
        'marzo' => 3, 'mars' => 3, 'marz' => 3, 'apr' => 4, 'april' => 4, 'abril' => 4, 'abr' => 4, 'avril' => 4,
        'avr' => 4, 'may' => 5, 'mayo' => 5, 'mai' => 5, 'jun' => 6, 'june' => 6, 'junio' => 6, 'juin' => 6,
        'juni' => 6, 'jul' => 7, 'july' => 7, 'julio' => 7, 'juillet' => 7, 'juil' => 7, 'juli' => 7, 'aug' => 8,
        'august' => 8, 'agosto' => 8, 'ago' => 8, 'aout' => 8, 'sep' => 9, 'sept' => 9, 'september' => 9,
        'septiembre' => 9, 'septembre' => 9, 'oct' => 10, 'october' => 10, 'octubre' => 10, 'octobre' => 10,
        'okt' => 10, 'oktober' => 10, 'nov' => 11, 'november' => 11, 'noviembre' => 11, 'novembre' => 11, 'dec' => 12,
        'december' => 12, 'diciembre' => 12, 'dic' => 12, 'decembre' => 12, 'dez' => 12, 'dezember' => 12,
    ];

    /**
     * @param  bool|null  $dayFirst how 03/04/2015 is to be read; null if the list does not say
     * @param int $serialsFrom days that serial numbers are counted later: 0 in the 1900 system, {@see SYSTEM_1904} in
     *     the other
     * @return string|null YYYY-MM-DD, or null if it is no date, or one that can be read two ways
     */
    public static function read(string $cell, ?bool $dayFirst, int $serialsFrom = 0): ?string
    {
        $cell = ltrim(trim($cell), "'’");
        if (preg_match('/^(\d{4}-\d\d-\d\d)T(\d\d):\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:?\d\d)$/', $cell, $m) === 1) {
            // Midnight somewhere, as the hour it was in Greenwich: east of it, that is the evening before.
            $day = self::read($m[1], null);

            return $day === null || (int) $m[2] < 12
                ? $day
                : (new DateTimeImmutable($day, new DateTimeZone('UTC')))->modify('+1 day')->format('Y-m-d');
        }
        // "28MAY2017"
        $cell = (string) preg_replace('/^(\d{1,2})(\p{L}{3,9})(\d{4})$/u', '$1 $2 $3', $cell);
        $cell = trim(
            (string) preg_replace('/[T ]0?0:00(?::00)?(?:\.0+)?(?: ?[AaPp][Mm]| 12:00:00 AM)?Z?$/', '', trim($cell)),
        );
        if (
            preg_match('/^(\p{Han}{2})?(\d{1,4}|元) ?[年년] ?(\d{1,2}) ?[月월] ?(\d{1,2}) ?[日일号]?$/u', $cell, $m) ===
            1
        ) {
            $from = $m[1] === '' ? 0 : self::ERAS[$m[1]] ?? null;
            $year = $m[2] === '元' ? 1 : (int) $m[2];

            return $from === null || ($from === 0) !== $year > 999 || ($m[2] === '元' && $from === 0)
                ? null
                : self::valid($from === 0 ? $year : $from + $year - 1, (int) $m[3], (int) $m[4]);
        }
        if (preg_match('#^(\d{4})[-/.] ?(\d{1,2})[-/.] ?(\d{1,2})\.?$#', $cell, $m) === 1) {
            return self::valid((int) $m[1], (int) $m[2], (int) $m[3]);
        }
        if (preg_match('/^((?:19|20)\d\d)(\d\d)(\d\d)$/', $cell, $m) === 1) {
            return self::valid((int) $m[1], (int) $m[2], (int) $m[3]);
        }
        if (
            preg_match('/^\d{4,5}(?:\.0+)?$/', $cell) === 1 &&
            (int) $cell >= self::SERIALS[0] &&
            (int) $cell <= self::SERIALS[1]
        ) {
            // Serial 60 is the 29 February 1900 that never was; from 61 on the count is from 30 December 1899.
            return gmdate('Y-m-d', ((int) $cell + $serialsFrom - 25569) * 86400);
        }
        if (preg_match('#^(\d{1,2})[/.\-](\d{1,2})[/.\-](\d{4}|\d{2})$#', $cell, $m) === 1) {
            $year = self::year($m[3]);
            [$a, $b] = [(int) $m[1], (int) $m[2]];
            if ($a > 12 || ($dayFirst === true && $b <= 12)) {
                return self::valid($year, $b, $a);
            }
            if ($b > 12 || $dayFirst === false || $a === $b) {
                return self::valid($year, $a, $b);
            }

            return null;
        }

        return preg_match('/\p{L}{3}/u', $cell) === 1 ? self::withMonthName($cell) : null;
    }

    /** Whether a cell of a list looks like a date, however it is to be read. */
    public static function looksLikeOne(string $cell): bool
    {
        return preg_match('#^\d{1,4}[/.\-]\d{1,2}[/.\-]\d{1,4}#', $cell) === 1 ||
            (!ctype_digit($cell) && self::read($cell, true) !== null) ||
            (ctype_digit($cell) && (int) $cell > 35000 && (int) $cell < 46000);
    }

    /** Whether a cell is a date that can be read two ways. */
    public static function isAmbiguous(string $cell): bool
    {
        return self::read($cell, null) === null && self::read($cell, true) !== null;
    }

    public static function isSerial(string $cell): bool
    {
        return preg_match('/^\d{4,5}(?:\.0+)?$/', trim($cell)) === 1 && self::read($cell, null) !== null;
    }

    /**
     * Whole years from one date to another, both YYYY-MM-DD; someone born on 29 February has birthdays on 1 March
     * otherwise.
     */
    public static function age(string $born, string $on): int
    {
        return (int) substr($on, 0, 4) - (int) substr($born, 0, 4) - (substr($on, 5) < substr($born, 5) ? 1 : 0);
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
            if (preg_match('#^\s*(\d{1,2})[/.\-](\d{1,2})[/.\-]\d{2,4}\b#', $cell, $m) === 1) {
                $day = $day || (int) $m[1] > 12;
                $month = $month || (int) $m[2] > 12;
            }
        }

        return $day === $month ? null : $day;
    }

    /**
     * Whether a spreadsheet of the other order has made real dates of a part of a column, with day and month turned:
     * those that could be read its way, up to the 12th, became dates; the others stayed text with the day first.
     *
     * @param  iterable<string>  $cells
     */
    public static function isHalfConverted(iterable $cells): bool
    {
        $real = $text = 0;
        foreach ($cells as $cell) {
            $cell = trim($cell);
            if (preg_match('/^\d{4}-\d\d-(\d\d)$/', $cell, $m) === 1) {
                if ((int) $m[1] > 12) {
                    return false;
                }
                $real++;
            } elseif (preg_match('#^(\d{1,2})[/.\-](\d{1,2})[/.\-]\d{2,4}$#', $cell, $m) === 1) {
                if ((int) $m[1] <= 12) {
                    return false;
                }
                $text++;
            }
        }

        return $real >= 3 && $text >= 3;
    }

    /** A date with its day and month turned, YYYY-MM-DD. */
    public static function turned(string $date): string
    {
        return substr($date, 0, 5) . substr($date, 8, 2) . '-' . substr($date, 5, 2);
    }

    private static function withMonthName(string $cell): ?string
    {
        $day = $month = $year = null;
        foreach (preg_split('/[^\p{L}\p{N}]+/u', NameKey::of($cell)) ?: [] as $word) {
            $word = (string) preg_replace('/^(\d+)(st|nd|rd|th|er|o)$/', '$1', $word);
            if (isset(self::MONTHS[$word])) {
                $month = self::MONTHS[$word];
            } elseif (ctype_digit($word) && strlen($word) === 4) {
                $year = (int) $word;
            } elseif (ctype_digit($word) && strlen($word) <= 2) {
                [$day, $year] = $day === null ? [(int) $word, $year] : [$day, $year ?? self::year($word)];
            } elseif (
                !in_array(
                    $word,
                    [
                        'de',
                        'del',
                        'of',
                        'mon',
                        'tue',
                        'wed',
                        'thu',
                        'fri',
                        'sat',
                        'sun',
                        'monday',
                        'tuesday',
                        'wednesday',
                        'thursday',
                        'friday',
                        'saturday',
                        'sunday',
                        'le',
                    ],
                    true,
                )
            ) {
                return null;
            }
        }

        return $day === null || $month === null || $year === null ? null : self::valid($year, $month, $day);
    }

    private static function year(string $written): int
    {
        return (int) $written + (strlen($written) === 2 ? ((int) $written > 40 ? 1900 : 2000) : 0);
    }

    private static function valid(int $year, int $month, int $day): ?string
    {
        return checkdate($month, $day, $year) ? sprintf('%04d-%02d-%02d', $year, $month, $day) : null;
    }
}
