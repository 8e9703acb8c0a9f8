<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use DateTimeZone;

/** Hours of the school's clock in which no letter of a school goes out: people sleep. Common practice, no source. */
final class QuietHours
{
    public const FROM = 20;

    public const TO = 7;

    /**
     * @param  string  $at UTC instant, YYYY-MM-DD HH:MM:SS
     * @param  string  $zone name of the school's time zone
     * @return string the same, or the end of the quiet hours it falls into, as a UTC instant
     */
    public static function after(string $at, string $zone): string
    {
        $there = (new DateTimeImmutable($at, new DateTimeZone('UTC')))->setTimezone(new DateTimeZone($zone));
        $hour = (int) $there->format('G');
        if ($hour >= self::TO && $hour < self::FROM) {
            return $at;
        }
        $day = $hour >= self::FROM ? $there->modify('+1 day') : $there;

        return $day->setTime(self::TO, 0)->setTimezone(new DateTimeZone('UTC'))->format('Y-m-d H:i:s');
    }
}
