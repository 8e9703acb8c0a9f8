<?php

declare(strict_types=1);

namespace App\Platform\Print;

use TCPDF_FONTS;

/**
 * Lines in which scripts meet that run in two directions: the signs in the order they are seen, letters in the form
 * their neighbours ask for. The library's own order takes a code, an address or a name of two words apart at every
 * space and sign, so only what runs from right to left is put to it.
 */
final class RightToLeft
{
    private const LETTERS = '/[\x{0590}-\x{08FF}\x{FB1D}-\x{FDFF}\x{FE70}-\x{FEFF}]/u';

    /** A stretch that runs from left to right: from a letter or digit of such a script to the last before another. */
    private const STRETCH =
        '/(?:(?!\p{Arabic}|\p{Hebrew})[\p{L}\p{N}])' .
        '(?:[^\p{Arabic}\p{Hebrew}]*(?:(?!\p{Arabic}|\p{Hebrew})[\p{L}\p{N}]))?/u';

    /** The library's one sign for the three last letters of the name of God, which few faces have. */
    private const GOD = 0xfdf2;

    /** Heh at the end, lam between, lam at the beginning: from left to right. */
    private const GOD_IN_LETTERS = [0xfeea, 0xfee0, 0xfedf];

    public static function isIn(string $text): bool
    {
        return preg_match(self::LETTERS, $text) === 1;
    }

    /**
     * @param  bool  $whole whether the line as a whole runs from right to left
     * @return list<int> code points from left to right
     */
    public static function seen(string $text, bool $whole): array
    {
        preg_match_all(self::STRETCH, $text, $found, PREG_OFFSET_CAPTURE);
        $parts = [];
        $at = 0;
        foreach ($found[0] as [$stretch, $offset]) {
            $parts[] = self::shaped(substr($text, $at, $offset - $at), $whole);
            $parts[] = array_map(mb_ord(...), mb_str_split($stretch));
            $at = $offset + strlen($stretch);
        }
        $parts[] = self::shaped(substr($text, $at), $whole);

        return array_merge(...$whole ? array_reverse($parts) : $parts);
    }

    /** @return list<int> */
    private static function shaped(string $text, bool $whole): array
    {
        if ($text === '') {
            return [];
        }
        $font = ['subsetchars' => []];
        $signs = array_map(mb_ord(...), mb_str_split($text));
        $seen = array_values(TCPDF_FONTS::utf8Bidi($signs, $text, $whole, true, $font));

        return array_merge(...array_map(fn(int $s): array => $s === self::GOD ? self::GOD_IN_LETTERS : [$s], $seen));
    }
}
