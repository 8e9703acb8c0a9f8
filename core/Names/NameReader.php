<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

use Normalizer;

/**
 * Takes a name written in one cell apart: "Family, Given", "Given Family" or "Family Given", with particles kept with
 * the family name and capitals mended where the whole name is in one case.
 */
final class NameReader
{
    // prettier-ignore
    private const PARTICLES = [
        'van', 'von', 'der', 'den', 'de', 'del', 'della', 'di', 'da', 'dos', 'das', 'do', 'la', 'le', 'du', 'al', 'el',
        'bin', 'ibn', 'binti', 'bint', 'ben', 'ter', 'ten', 'zu', 'st', 'abu', 'y', 'e', 'af', 'av',
    ];

    public static function isParticle(string $word): bool
    {
        return in_array(mb_strtolower(rtrim($word, '.')), self::PARTICLES, true);
    }

    /**
     * @param  bool  $familyFirst how a name without a comma is to be read
     * @param NameBook|null $book tells second family names from second given names; without it one word is the family
     *     name
     */
    public static function read(string $cell, bool $familyFirst = false, ?NameBook $book = null): PersonName
    {
        return self::mend(self::split($cell, $familyFirst, $book));
    }

    /** The same with capitals left as they are written. */
    public static function split(string $cell, bool $familyFirst = false, ?NameBook $book = null): PersonName
    {
        $cell = self::tidy($cell);
        // "Haddad, Jr." is no family name with a given name after it.
        $cell = (string) preg_replace('/,\s*(jr|sr|ii|iii|iv)\b\.?/iu', ' $1', $cell);
        $comma = mb_strpos($cell, ',');
        if ($comma !== false) {
            return new PersonName(trim(mb_substr($cell, $comma + 1), ' ,'), trim(mb_substr($cell, 0, $comma)));
        }
        $words = explode(' ', $cell);
        if (count($words) === 1) {
            return new PersonName($cell, '');
        }
        $isFamily = fn(string $word): bool => $book !== null && $book->givenRatherThanFamily(NameKey::of($word)) < -1.5;
        if ($familyFirst) {
            // Particles lead the family name; the name proper follows them, and a second family name may follow that.
            $n = 0;
            while ($n < count($words) - 2 && self::isParticle($words[$n])) {
                $n++;
            }
            while ($n < count($words) - 2 && $isFamily($words[$n + 1])) {
                $n++;
            }

            return new PersonName(
                implode(' ', array_slice($words, $n + 1)),
                implode(' ', array_slice($words, 0, $n + 1)),
            );
        }
        $n = count($words) - 1;
        if ($n > 1 && preg_match('/^(jr|sr|ii|iii|iv)\.?$/i', $words[$n]) === 1) {
            $n--;
        }
        while ($n > 1 && (self::isParticle($words[$n - 1]) || $isFamily($words[$n - 1]))) {
            $n--;
        }

        return new PersonName(implode(' ', array_slice($words, 0, $n)), implode(' ', array_slice($words, $n)));
    }

    /**
     * White space of every kind to single blanks, control and format characters (zero-width, soft hyphens, marks of
     * direction) out, composed form.
     */
    public static function tidy(string $cell): string
    {
        $cell = (string) preg_replace('/[\p{Cc}\p{Zs}\p{Zl}\p{Zp}]+/u', ' ', mb_scrub($cell));
        $cell = (string) preg_replace('/\p{Cf}+/u', '', $cell);

        $composed = Normalizer::normalize($cell);

        return trim(is_string($composed) ? $composed : $cell);
    }

    /** A name written wholly in capitals or wholly in small letters, in the case a person would write. */
    public static function mend(PersonName $name): PersonName
    {
        return new PersonName(self::mendPart($name->given), self::mendPart($name->family));
    }

    private static function mendPart(string $part): string
    {
        $letters = (string) preg_replace('/[^\p{L}]+/u', '', $part);
        if (mb_strlen($letters) < 3 || ($letters !== mb_strtoupper($letters) && $letters !== mb_strtolower($letters))) {
            return $part;
        }
        if (preg_match('/\p{Lu}|\p{Ll}/u', $letters) !== 1) {
            return $part;
        }
        $words = explode(' ', mb_strtolower($part));
        foreach ($words as $i => $word) {
            if (count($words) > 1 && $i < count($words) - 1 && self::isParticle($word)) {
                continue;
            }
            $words[$i] = (string) preg_replace_callback(
                "/(^|-|\\bmc|\\bo['’]|\\bd['’])(\\p{L})/u",
                fn(array $m): string => ($m[1] === '' || $m[1] === '-'
                    ? $m[1]
                    : mb_convert_case($m[1], MB_CASE_TITLE)) . mb_strtoupper($m[2]),
                $word,
            );
            if (preg_match('/^mc(\p{L})/ui', $words[$i]) === 1) {
                $words[$i] = 'Mc' . mb_strtoupper(mb_substr($words[$i], 2, 1)) . mb_substr($words[$i], 3);
            }
            if (preg_match("/^([od]['’])(\\p{L})/ui", $words[$i]) === 1) {
                $words[$i] =
                    mb_strtoupper(mb_substr($words[$i], 0, 1)) .
                    mb_substr($words[$i], 1, 1) .
                    mb_strtoupper(mb_substr($words[$i], 2, 1)) .
                    mb_substr($words[$i], 3);
            }
        }

        return implode(' ', $words);
    }
}
