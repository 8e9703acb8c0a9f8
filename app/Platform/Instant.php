<?php

declare(strict_types=1);

namespace App\Platform;

/** Instants as the API gives them: ISO 8601 in UTC, whole seconds. */
final class Instant
{
    /** @param  string  $stored `YYYY-MM-DD HH:MM:SS`, with or without fractions */
    public static function iso(string $stored): string
    {
        return str_replace(' ', 'T', substr($stored, 0, 19)) . 'Z';
    }

    public static function isoOrNull(?string $stored): ?string
    {
        return $stored === null ? null : self::iso($stored);
    }
}
