<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Guardians\Hears;

/**
 * When digests go out: at an hour of the school's clock, on school days or on the last of them in the week. Where the
 * clock leaps over the hour, at the first moment after it, and over the day, at that hour of the next; where the hour
 * comes twice, at the first of them.
 */
final class DigestTimes
{
    /** ISO-8601 numbers of days: Monday to Friday. Common practice, no source. */
    private const SCHOOL_DAYS = [1, 2, 3, 4, 5];

    private const LAST = 5;

    /**
     * The latest moment at or before now at which one was due.
     *
     * @param  int  $hour of the school's clock, 0 to 23
     * @param  string  $zone name of the school's time zone
     * @param  string  $now UTC instant, YYYY-MM-DD HH:MM:SS
     * @return string|null UTC instant; null where none is ever due
     */
    public static function due(Hears $often, int $hour, string $zone, string $now): ?string
    {
        if ($often === Hears::Off) {
            return null;
        }
        $utc = new DateTimeZone('UTC');
        $at = new DateTimeImmutable($now, $utc);
        // A day of the calendar, not of the zone, which may have skipped one.
        $day = new DateTimeImmutable($at->setTimezone(new DateTimeZone($zone))->format('Y-m-d'), $utc);
        // A week back, and a day more: the hour of today may be still to come.
        for ($back = 0; $back <= 8; $back++) {
            $then = $day->modify("-$back days")->format('Y-m-d');
            if (!self::isDay($often, (int) $day->modify("-$back days")->format('N'))) {
                continue;
            }
            $due = self::instant($then, $hour, $zone);
            if ($due <= $at) {
                return $due->setTimezone($utc)->format('Y-m-d H:i:s');
            }
        }

        return null;
    }

    private static function isDay(Hears $often, int $day): bool
    {
        return $often === Hears::Weekly ? $day === self::LAST : in_array($day, self::SCHOOL_DAYS, true);
    }

    /** The first moment of the day at which the clock shows the hour, or has leapt over it. */
    private static function instant(string $day, int $hour, string $zone): DateTimeImmutable
    {
        $utc = new DateTimeZone('UTC');
        $local = new DateTimeZone($zone);
        $wanted = sprintf('%s %02d:00:00', $day, $hour);
        // As if the clock stood as it did the day before: right but where it changes in between.
        $guess = new DateTimeImmutable($wanted, $local);
        $first = $guess->setTimezone($utc);
        foreach ([-2, -1, 0, 1, 2] as $hours) {
            foreach ([0, 30] as $minutes) {
                $try = $guess->setTimezone($utc)->modify(sprintf('%+d minutes', $hours * 60 + $minutes));
                if ($try->setTimezone($local)->format('Y-m-d H:i:s') === $wanted && $try < $first) {
                    $first = $try;
                }
            }
        }
        if ($first->setTimezone($local)->format('Y-m-d H:i:s') === $wanted) {
            return $first;
        }

        // Leapt over: the moment of the leap.
        $leaps = $local->getTransitions($first->getTimestamp() - 10_800, $first->getTimestamp() + 10_800);
        foreach (array_slice($leaps, 1) as $leap) {
            $moment = $first->setTimestamp($leap['ts'])->setTimezone($local);
            if ($moment->format('Y-m-d H:i:s') > $wanted) {
                return $moment->setTimezone($utc);
            }
        }

        return $first;
    }
}
