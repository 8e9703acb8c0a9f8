<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Plan\Refusal;

/** When a letter goes out that somebody wants to go later. */
final class SendTime
{
    /** Minutes for which a time that has just passed is still meant: somebody looked at the letter meanwhile. */
    private const GRACE = 60;

    /** Days after which nobody knows any more what waits. */
    private const FARTHEST = 366;

    /**
     * @param  string|null  $local day and time by the clock of the school, YYYY-MM-DDTHH:MM; null for now
     * @param  string  $zone name of the school’s time zone
     * @param  string  $now UTC instant, YYYY-MM-DD HH:MM:SS
     * @return string the same as an instant, not before now
     *
     * @throws Refusal where that time is over, or more than a year away: a slip in the day or the year
     */
    public static function of(?string $local, string $zone, string $now): string
    {
        if ($local === null) {
            return $now;
        }
        $utc = new DateTimeZone('UTC');
        $at = (new DateTimeImmutable($local, new DateTimeZone($zone)))->setTimezone($utc);
        $today = new DateTimeImmutable($now, $utc);
        if ($at < $today->modify('-' . self::GRACE . ' minutes')) {
            throw new Refusal('That time is over. Choose one that is to come, or none to send it now.', 'at');
        }
        if ($at > $today->modify('+' . self::FARTHEST . ' days')) {
            throw new Refusal('That is more than a year away. Look at the year.', 'at');
        }

        return max($at, $today)->format('Y-m-d H:i:s');
    }
}
