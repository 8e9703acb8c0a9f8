<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/**
 * How many parts a text message is sent in, and billed for. 160 septets of the default alphabet in one, 153 in each of
 * several; 70 and 67 UTF-16 units where one character is not in it (3GPP TS 23.038, 6.2.1, and 23.040, 9.2.3.24.1: the
 * header of a part of several takes six octets).
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
        $septets = 0;
        foreach (mb_str_split($text) as $character) {
            if (str_contains(self::EXTENDED, $character)) {
                $septets += 2;
            } elseif (str_contains(self::SEPTETS, $character)) {
                $septets++;
            } else {
                return self::parts(intdiv(strlen(mb_convert_encoding($text, 'UTF-16BE', 'UTF-8')), 2), 70, 67);
            }
        }

        return self::parts($septets, 160, 153);
    }

    private static function parts(int $length, int $one, int $each): int
    {
        return $length <= $one ? 1 : (int) ceil($length / $each);
    }
}
