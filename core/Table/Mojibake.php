<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** Undoes UTF-8 that was read as Windows-1252 and written as UTF-8 again: "JosÃ©" to "José". */
final class Mojibake
{
    /** Pairs that such double encoding leaves, and hardly any language writes. */
    private const TELL_TALE =
        '/[ÃÂÅÄÐÑØÙáâãäå][\x{0080}-\x{00BF}\x{0152}\x{0153}\x{0160}\x{0161}\x{0178}\x{017D}\x{017E}\x{0192}' .
        '\x{02C6}\x{02DC}\x{2013}-\x{203A}\x{20AC}\x{2122}]/u';

    /** The text mended where the mended text is valid and the tell-tale pairs are there; otherwise as it is. */
    public static function mend(string $text): string
    {
        if (preg_match('/[^\x00-\x7F]/', $text) !== 1 || preg_match(self::TELL_TALE, $text) !== 1) {
            return $text;
        }

        return (string) preg_replace_callback(
            '/[^\x00-\x7F]+/u',
            function (array $m): string {
                $bytes = (string) mb_convert_encoding($m[0], 'Windows-1252', 'UTF-8');
                $again = (string) mb_convert_encoding($bytes, 'UTF-8', 'Windows-1252');

                return $again === $m[0] && mb_check_encoding($bytes, 'UTF-8') ? $bytes : $m[0];
            },
            $text,
        );
    }
}
