<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/**
 * How many parts a text message is sent in, and billed for. 160 septets of the default alphabet in one, 153 in each of
 * several; 70 and 67 UTF-16 units where one character is not in it (3GPP TS 23.038, 6.2.1, and 23.040, 9.2.3.24.1: the
 * header of a part of several takes six octets). No part ends within a character: common practice, no source.
 */
final class TextParts
{
    /** The default alphabet of 3GPP TS 23.038, 6.2.1, without the escape. */
    private const SEPTETS =
        "@£\$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !\"#¤%&'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿" .
        'abcdefghijklmnopqrstuvwxyzäöñüà';

    /** Two septets each, by the escape (6.2.1.1). */
    private const EXTENDED = "\f^{}\\[~]|€";

    public static function count(string $text): int
    {
        $characters = mb_str_split($text);
        $septets = [];
        foreach ($characters as $character) {
            if (str_contains(self::EXTENDED, $character)) {
                $septets[] = 2;
            } elseif (str_contains(self::SEPTETS, $character)) {
                $septets[] = 1;
            } else {
                // Four bytes of UTF-8 are two units of UTF-16.
                return self::parts(array_map(fn(string $c): int => strlen($c) === 4 ? 2 : 1, $characters), 70, 67);
            }
        }

        return self::parts($septets, 160, 153);
    }

    /**
     * @param  list<int>  $lengths of each character
     * @param  int  $one what a single part holds
     * @param  int  $each what each of several holds
     */
    private static function parts(array $lengths, int $one, int $each): int
    {
        if (array_sum($lengths) <= $one) {
            return 1;
        }
        $parts = 1;
        $filled = 0;
        foreach ($lengths as $length) {
            if ($filled + $length > $each) {
                $parts++;
                $filled = 0;
            }
            $filled += $length;
        }

        return $parts;
    }
}
