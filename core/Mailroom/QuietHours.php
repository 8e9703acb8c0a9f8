<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use DateTimeZone;

/** Hours of the school's clock in which no letter of a school goes out, unless it is said so: people sleep. */
final class QuietHours
{
    /**
     * @param  string  $at UTC instant, YYYY-MM-DD HH:MM:SS
     * @param  string  $zone name of the school's time zone
     * @param  int  $from hour from which it is quiet, 0 to 23
     * @param  int  $to hour until which; the same where it never is
     * @return string the same, or the end of the quiet hours it falls into, as a UTC instant
     */
    public static function after(string $at, string $zone, int $from, int $to): string
    {
        $there = (new DateTimeImmutable($at, new DateTimeZone('UTC')))->setTimezone(new DateTimeZone($zone));
        $hour = (int) $there->format('G');
        $quiet = $from > $to ? $hour >= $from || $hour < $to : $hour >= $from && $hour < $to;
        if (!$quiet) {
            return $at;
        }
        $day = $hour >= $to ? $there->modify('+1 day') : $there;

        return $day->setTime($to, 0)->setTimezone(new DateTimeZone('UTC'))->format('Y-m-d H:i:s');
    }
}
