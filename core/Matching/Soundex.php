<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * The Soundex code of a name by the rules of the US National Archives: the first letter, then three figures for the
 * sounds that follow. Letters of one code that touch, or that only H or W parts, are coded once; a vowel between them
 * makes two of them. PHP's own function follows another rule for H and W.
 */
final class Soundex
{
    /** Figure of each letter; 0 for vowels, which part letters, and - for H and W, which do not. */
    // prettier-ignore
    private const CODES = [
        'a' => '0', 'b' => '1', 'c' => '2', 'd' => '3', 'e' => '0', 'f' => '1', 'g' => '2', 'h' => '-', 'i' => '0',
        'j' => '2', 'k' => '2', 'l' => '4', 'm' => '5', 'n' => '5', 'o' => '0', 'p' => '1', 'q' => '2', 'r' => '6',
        's' => '2', 't' => '3', 'u' => '0', 'v' => '1', 'w' => '-', 'x' => '2', 'y' => '0', 'z' => '2',
    ];

    /** @var array<string, string> */
    private static array $known = [];

    /** @param  string  $name plain ({@see \Vantrel\Core\Names\NameKey}); what is no letter is passed over */
    public static function of(string $name): string
    {
        if (count(self::$known) > 100_000) {
            self::$known = [];
        }

        return self::$known[$name] ??= self::work((string) preg_replace('/[^a-z]/', '', strtolower($name)));
    }

    private static function work(string $letters): string
    {
        if ($letters === '') {
            return '';
        }
        $code = strtoupper($letters[0]);
        $last = self::CODES[$letters[0]];
        for ($i = 1, $n = strlen($letters); $i < $n && strlen($code) < 4; $i++) {
            $figure = self::CODES[$letters[$i]];
            if ($figure === '-') {
                continue;
            }
            if ($figure !== '0' && $figure !== $last) {
                $code .= $figure;
            }
            $last = $figure;
        }

        return str_pad($code, 4, '0');
    }
}
