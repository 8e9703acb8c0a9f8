<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** What may stand on one line of a header: a subject, a name. */
final class Line
{
    /** As long as a subject is in the Mailroom. */
    public const MOST = 250;

    /**
     * Without line ends, control characters and marks that turn the direction of what follows: nothing somebody has
     * typed begins another header or reads otherwise than it is.
     */
    public static function of(string $text): string
    {
        // What another server says may be in any encoding: better a letter lost than all of it.
        $text = (string) preg_replace(
            '/[\x{202A}-\x{202E}\x{2066}-\x{2069}\x{200B}\x{2060}\x{FEFF}]/u',
            '',
            mb_scrub($text),
        );
        $text = trim((string) preg_replace('/[\p{Cc}\p{Zl}\p{Zp}\s]+/u', ' ', $text));

        return mb_strlen($text) > self::MOST ? mb_substr($text, 0, self::MOST - 1) . '…' : $text;
    }
}
