<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Matching\Soundex;
use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Names\NameKey;

/**
 * By which words somebody is found, and by which keys a word is found that was typed with a slip.
 *
 * A slip is one letter too many, too few, other, or two that changed places: then what is left of both words when each
 * loses one letter, or none, is the same somewhere (after the deletion neighbourhoods of Mor and Fraenkel 1982).
 */
final class SearchWords
{
    public const LONGEST = 60;

    /** Of shorter words every other one is a slip of some third. */
    private const SLIPS_FROM = 4;

    /** As many digits as a telephone number has without the codes before it. */
    private const LOCAL_PHONE = 7;

    /**
     * @param  list<string>  $names each whole: given name, family name, a name one goes by
     * @param  list<string>  $userNames
     * @return list<string> plain words
     */
    public static function of(array $names, string $number, string $email, string $phone, array $userNames): array
    {
        $words = [];
        foreach ($names as $name) {
            $key = NameKey::of($name);
            // A name of several words is often written as one: "delacruz", "annemarie".
            array_push($words, ...explode(' ', $key), ...[str_replace(' ', '', $key)]);
        }
        $number = NameKey::of($number);
        array_push($words, $number, ltrim($number, '0'));
        if ($email !== '') {
            $words[] = mb_strtolower($email);
            array_push($words, ...self::plain((string) strstr($email, '@', true)));
            $words[] = substr((string) strrchr(mb_strtolower($email), '@'), 0);
        }
        foreach ($userNames as $userName) {
            array_push($words, ...self::plain($userName));
        }
        $digits = (string) preg_replace('/\D/', '', $phone);
        if (strlen($digits) >= self::LOCAL_PHONE) {
            array_push($words, $digits, substr($digits, -self::LOCAL_PHONE));
        }

        return array_values(
            array_unique(
                array_filter(
                    array_map(fn(string $word): string => substr($word, 0, self::LONGEST), $words),
                    fn(string $word): bool => $word !== '' && preg_match('/^[\x21-\x7E]+$/D', $word) === 1,
                ),
            ),
        );
    }

    /** @return list<string> what is typed, in words as {@see of()} makes them */
    public static function typed(string $text): array
    {
        $text = trim($text);
        // A telephone number in groups, not student numbers one after the other.
        if (preg_match('/^\+?[\d\s().\/-]+$/D', $text) === 1 && preg_match('/^[^+(.\/-]*\d{5}/', $text) === 0) {
            $digits = (string) preg_replace('/\D/', '', $text);
            if (strlen($digits) >= self::LOCAL_PHONE) {
                return [$digits];
            }
        }
        $words = [];
        foreach (preg_split('/[\s,;]+/u', $text, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $token) {
            array_push(
                $words,
                ...str_contains($token, '@') ? [mb_strtolower($token)] : explode(' ', NameKey::of($token)),
            );
        }

        return array_values(
            array_unique(
                array_filter($words, fn(string $w): bool => $w !== '' && preg_match('/^[\x21-\x7E]+$/D', $w) === 1),
            ),
        );
    }

    /**
     * Keys under which a word is kept and looked for: whatever shares one with it is worth a look.
     *
     * @return list<string>
     */
    public static function keys(string $word): array
    {
        $keys = [$word];
        if (strlen($word) >= self::SLIPS_FROM && !str_contains($word, '@')) {
            for ($i = 0; $i < strlen($word); $i++) {
                $keys[] = substr($word, 0, $i) . substr($word, $i + 1);
            }
        }
        if (ctype_alpha($word) && strlen($word) > 1) {
            // Capitals and signs, which no plain word has.
            $keys[] = '=' . NameKey::loose($word);
            $keys[] = Soundex::of($word);
            // With the sound of the first letter, not the letter: "Castell" and "Kastelle".
            $keys[] = '#' . Soundex::of("a$word");
            foreach (GivenNames::of($word) as $line) {
                $keys[] = "~$line";
            }
        }

        return array_values(array_unique($keys));
    }

    /** @return list<string> */
    private static function plain(string $text): array
    {
        return preg_split('/[^a-z0-9]+/', NameKey::of($text), -1, PREG_SPLIT_NO_EMPTY) ?: [];
    }
}
