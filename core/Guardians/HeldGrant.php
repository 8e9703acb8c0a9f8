<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use DateTimeImmutable;
use DateTimeZone;

/** How long a guardian can fetch what is held about their child, once the school has given it. */
final class HeldGrant
{
    /** Common practice, no source. */
    public const DAYS = 14;

    /**
     * @param  string  $answeredAt UTC, YYYY-MM-DD HH:MM:SS
     * @return string the same, when it is over
     */
    public static function until(string $answeredAt): string
    {
        return (new DateTimeImmutable($answeredAt, new DateTimeZone('UTC')))
            ->modify('+' . self::DAYS . ' days')
            ->format('Y-m-d H:i:s');
    }
}
