<?php

declare(strict_types=1);

namespace App\Mailroom;

/** What in a message is its receiver's alone: the token of a link, behind its `#`, and the figures of a code. */
final class Secrets
{
    public static function hide(string $text): string
    {
        return (string) preg_replace(
            ['~(https?://\S+?#)[A-Za-z0-9_-]{16,}~', '~(?<![\d-])\d{3}-\d{3}(?![\d-])~'],
            ['$1…', '…'],
            $text,
        );
    }

    /** As somebody else than its receiver may read it. */
    public static function forOthers(string $text): string
    {
        return self::areOpen() ? $text : self::hide($text);
    }

    /** Whether others may follow them: only where all of it is a demo. */
    public static function areOpen(): bool
    {
        return (bool) config('vantrel.stand_ins');
    }
}
