<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use Normalizer;

/**
 * The one form in which addresses and user names are kept, and compared byte by byte: no white space around, composed
 * (NFC), small letters. Nothing else is folded: an address with an accent, in full-width letters, or with a letter that
 * only looks like another one (the Kelvin sign for a k) is another address, and perhaps another person's.
 */
final class Canonical
{
    /**
     * Greek question mark, Greek varia and the Kelvin sign: composing makes ASCII of them (UnicodeData, singleton
     * decompositions).
     */
    private const TURNS_ASCII = '/([\x{037E}\x{1FEF}\x{212A}])/u';

    public static function of(string $typed): string
    {
        $text = trim(mb_scrub($typed));
        if (preg_match('/^[\x21-\x7E]*$/', $text) === 1) {
            return strtolower($text);
        }
        $text = (string) preg_replace('/^[\s\p{Z}]+|[\s\p{Z}]+$/u', '', $text);
        $kept = '';
        foreach (preg_split(self::TURNS_ASCII, $text, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $part) {
            $composed =
                preg_match(self::TURNS_ASCII, $part) === 1 ? $part : Normalizer::normalize($part, Normalizer::FORM_C);
            $kept .= is_string($composed) ? $composed : $part;
        }

        return (string) preg_replace_callback(
            '/./us',
            function (array $m): string {
                $small = mb_strtolower($m[0]);

                // A letter that is none of ASCII never becomes one of them.
                return strlen($m[0]) > 1 && preg_match('/[\x00-\x7F]/', $small) === 1 ? $m[0] : $small;
            },
            $kept,
        );
    }
}
