<?php

declare(strict_types=1);

namespace Vantrel\Core\CommandBox;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Values\CalendarDate;

/** A day that is over, or today, as somebody says it: "1 sep", "monday", "yesterday". */
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
        $text = mb_strtolower(trim((string) preg_replace('/(?<=\d)(?:st|nd|rd|th)\b|\bof\b|,/iu', '', $text)));
        $text = (string) preg_replace('/\s+/u', ' ', $text);
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
            default => self::date($text, $today),
        };
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

    private static function date(string $text, string $today): ?string
    {
        if (preg_match('/\d{4}/', $text) === 1) {
            return CalendarDate::read($text, null);
        }
        // A day and a month: of this year, or of the last one that had them and is not to come. 29 February is not in
        // every year.
        for ($year = (int) substr($today, 0, 4), $i = 0; $i < 8; $i++, $year--) {
            $date = CalendarDate::read("$text $year", null);
            if ($date !== null && $date <= $today) {
                return $date;
            }
        }

        return null;
    }
}
