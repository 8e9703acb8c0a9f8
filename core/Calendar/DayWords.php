<?php

declare(strict_types=1);

namespace Vantrel\Core\Calendar;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Values\CalendarDate;

/** A day as somebody says it: "1 sep", "monday", "yesterday"; the latest such day up to today, or the next from it. */
final class DayWords
{
    private const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];

    /**
     * @param  string  $today YYYY-MM-DD
     * @return string|null YYYY-MM-DD, the latest such day up to today where no year is named; null where it is no day,
     *     or one that can be read two ways
     */
    public static function read(string $text, string $today): ?string
    {
        $text = self::plain($text);
        $now = new DateTimeImmutable($today, new DateTimeZone('UTC'));
        $weekday = self::weekday($text);
        if ($weekday !== null) {
            return $now->modify('-' . (7 + (int) $now->format('N') - 1 - $weekday) % 7 . ' days')->format('Y-m-d');
        }
        if (preg_match('/^(\d{1,4}) days? ago$/', $text, $m) === 1) {
            return $now->modify("-$m[1] days")->format('Y-m-d');
        }

        return match ($text) {
            'today', 'now' => $today,
            'yesterday' => $now->modify('-1 day')->format('Y-m-d'),
            default => self::date($text, $today, -1),
        };
    }

    /**
     * The same of a day that is to come, or today.
     *
     * @param  string  $today YYYY-MM-DD
     * @return string|null YYYY-MM-DD, the next such day from today where no year is named
     */
    public static function coming(string $text, string $today): ?string
    {
        $text = self::plain($text);
        $now = new DateTimeImmutable($today, new DateTimeZone('UTC'));
        $weekday = self::weekday((string) preg_replace('/^next /', '', $text));
        if ($weekday !== null) {
            $days = (7 + $weekday - ((int) $now->format('N') - 1)) % 7;

            // Nobody calls today the next such day.
            return $now
                ->modify('+' . ($days === 0 && str_starts_with($text, 'next ') ? 7 : $days) . ' days')
                ->format('Y-m-d');
        }
        if (preg_match('/^in (\d{1,3}) (day|week)s?$/', $text, $m) === 1) {
            return $now->modify("+$m[1] $m[2]s")->format('Y-m-d');
        }

        return match ($text) {
            'today' => $today,
            'tomorrow' => $now->modify('+1 day')->format('Y-m-d'),
            default => self::date($text, $today, 1),
        };
    }

    private static function plain(string $text): string
    {
        $text = mb_strtolower(trim((string) preg_replace('/(?<=\d)(?:st|nd|rd|th)\b|\bof\b|,/iu', '', $text)));

        return (string) preg_replace('/\s+/u', ' ', $text);
    }

    private static function weekday(string $text): ?int
    {
        $text = (string) preg_replace('/^last /', '', $text);
        foreach (self::WEEKDAYS as $i => $name) {
            if (strlen($text) >= 3 && str_starts_with($name, $text)) {
                return $i;
            }
        }

        return null;
    }

    /** @param  int  $step -1 towards days that are over, 1 towards those to come */
    private static function date(string $text, string $today, int $step): ?string
    {
        if (preg_match('/\d{4}/', $text) === 1) {
            return CalendarDate::read($text, null);
        }
        // A day and a month: of this year, or of the nearest one that has them and lies the right way. 29 February is
        // not in every year.
        for ($year = (int) substr($today, 0, 4), $i = 0; $i < 9; $i++, $year += $step) {
            $date = CalendarDate::read("$text $year", null);
            if ($date !== null && ($date <=> $today) * $step >= 0) {
                return $date;
            }
        }

        return null;
    }
}
