<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/**
 * The 23 symbols of join codes. No vowels, so no words; none of 0 O 1 I L 2 Z-like 5 6 8 U Y that are misread for
 * another. 23 is a prime, which is what lets one check symbol find every single mistake.
 */
final class Alphabet
{
    public const SYMBOLS = 'BCDFGHJKMNPQRSTVWXZ3479';

    public const SIZE = 23;

    /** Place of the symbol, 0 to 22, or null if it is none of ours. */
    public static function index(string $symbol): ?int
    {
        $at = strpos(self::SYMBOLS, $symbol);

        return $at === false || $symbol === '' ? null : $at;
    }

    public static function symbol(int $index): string
    {
        return self::SYMBOLS[$index];
    }
}
