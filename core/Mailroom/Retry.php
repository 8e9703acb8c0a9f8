<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/**
 * When a message is tried again that a gateway would not take for now: soon at first, since a full queue empties, then
 * seldom, for a day and a half. RFC 5321, 4.5.4.1 asks for at least 30 minutes between tries after the first few, and
 * for four to five days in all; a school's news is old by then, so it is given up, and seen, earlier.
 */
final class Retry
{
    /** Minutes from one try to the next. */
    private const MINUTES = [1, 5, 30, 60, 180, 360, 720, 720];

    /**
     * @param  int  $tries made so far, at least one
     * @return int|null seconds; null where it is given up
     */
    public static function after(int $tries): ?int
    {
        $minutes = self::MINUTES[$tries - 1] ?? null;

        return $minutes === null ? null : $minutes * 60;
    }
}
