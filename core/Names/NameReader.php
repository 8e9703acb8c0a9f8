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

    private const SUFFIX = '/^(?:jr|sr|ii|iii|iv|v|esq)\.?$/iu';

    /** The name after the father, which follows the given name in Ukrainian and its neighbours. */
    private const PATRONYMIC =
        '/(?:івна|ївна|ович|йович|євич|евич|овна|евна|ivna|yivna|ovych|yovych|evych|ovna|evna|' .
        'ovich|evich|оглы|кызы)$/iu';

    /** Family names of two signs. Common practice, no source; from memory. */
    // prettier-ignore
    private const COMPOUND = [
        '欧阳', '歐陽', '司马', '司馬', '上官', '诸葛', '諸葛', '东方', '東方', '皇甫', '尉迟', '公孙', '慕容', '令狐', '长孙', '宇文',
        '司徒', '夏侯', '南宫', '独孤', '端木', '남궁', '황보', '제갈', '사공', '선우', '독고',
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

    // prettier-ignore
    private const VIETNAMESE = [
        'nguyen', 'tran', 'le', 'pham', 'huynh', 'hoang', 'phan', 'vu', 'vo', 'dang', 'bui', 'do', 'ngo', 'duong',
        'ly', 'dinh', 'truong', 'trinh', 'mai', 'luong', 'luu',
    ];

    /** The same with capitals left as they are written. */
    public static function split(string $cell, bool $familyFirst = false, ?NameBook $book = null): PersonName
    {
        $cell = self::tidy($cell);
        // "Weller; Tess": a slip of the finger for a comma.
        if (!str_contains($cell, ',') && substr_count($cell, ';') === 1) {
            $cell = str_replace(';', ',', $cell);
        }
        if (str_contains($cell, ',')) {
            return self::atCommas($cell);
        }
        $chinese = self::unspaced($cell);
        if ($chinese !== null) {
            return $chinese;
        }
        $words = explode(' ', $cell);
        if (self::isEastAsian($cell)) {
            return new PersonName($words[1], $words[0]);
        }
        if (count($words) === 1) {
            return new PersonName($cell, '');
        }
        if (count($words) === 3 && preg_match(self::PATRONYMIC, $words[2]) === 1) {
            return new PersonName("$words[1] $words[2]", $words[0]);
        }
        if (count($words) === 3 && preg_match(self::PATRONYMIC, $words[1]) === 1) {
            return new PersonName("$words[0] $words[1]", $words[2]);
        }
        // "Nguyễn Văn Nam": the middle names of Vietnamese are part of the given name, whoever is called so elsewhere.
        $isVietnamese = in_array(NameKey::of($words[0]), self::VIETNAMESE, true);
        $isFamily = fn(string $word): bool => !$isVietnamese &&
            $book !== null &&
            $book->givenRatherThanFamily(NameKey::of($word)) < -1.5;
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
        if ($n > 1 && preg_match(self::SUFFIX, $words[$n]) === 1) {
            $n--;
        }
        while ($n > 1 && (self::isParticle($words[$n - 1]) || $isFamily($words[$n - 1]))) {
            $n--;
        }

        return new PersonName(implode(' ', array_slice($words, 0, $n)), implode(' ', array_slice($words, $n)));
    }

    /** "Harlow, Robert, III", "Harlow, Jr., Robert", "Okafor, Chidi, M.": a suffix stays with the family name. */
    private static function atCommas(string $cell): PersonName
    {
        $parts = array_values(
            array_filter(array_map(trim(...), explode(',', $cell)), fn(string $p): bool => $p !== ''),
        );
        $family = $parts[0] ?? '';
        $given = [];
        foreach (array_slice($parts, 1) as $part) {
            if (preg_match(self::SUFFIX, $part) === 1) {
                $family .= " $part";
            } else {
                $given[] = $part;
            }
        }
        // "Robert Harlow, Jr."
        if ($given === [] && count($parts) > 1 && str_contains($parts[0], ' ')) {
            return self::split($family);
        }

        return new PersonName(implode(' ', $given), $family);
    }

    /**
     * A Chinese or Korean name written without a blank: the family name is its first sign, or its first two where those
     * are one of the few compound ones. Three signs at most otherwise: longer ones may be a name of another language.
     */
    private static function unspaced(string $cell): ?PersonName
    {
        if (preg_match('/^(?:\p{Han}{2,4}|\p{Hangul}{2,4})$/u', $cell) !== 1) {
            return null;
        }
        $two = mb_substr($cell, 0, 2);
        $n = mb_strlen($cell) > 2 && in_array($two, self::COMPOUND, true) ? 2 : 1;

        return mb_strlen($cell) === 4 && $n === 1
            ? null
            : new PersonName(mb_substr($cell, $n), mb_substr($cell, 0, $n));
    }

    /**
     * A Chinese, Japanese or Korean name in its own signs with a blank in it: the family name is first, whatever the
     * order of other names; but for one Korean syllable at the end, which is a family name put last.
     */
    public static function isEastAsian(string $cell): bool
    {
        return preg_match(
            '/^[\p{Han}\p{Hiragana}\p{Katakana}ー々]+ [\p{Han}\p{Hiragana}\p{Katakana}ー々]+$/u',
            $cell,
        ) === 1 || preg_match('/^\p{Hangul}{1,2} \p{Hangul}{2,}$|^\p{Hangul} \p{Hangul}+$/u', $cell) === 1;
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
        // "ROWE III", "O'NEIL Jr.": the suffix has a case of its own.
        if (preg_match('/^(.+?)((?: (?:jr|sr|esq|ii|iii|iv)\b\.?)+)$/iu', $part, $m) === 1) {
            $name = self::mendPart($m[1]);

            return $name === $m[1]
                ? $part
                : $name .
                        (string) preg_replace_callback(
                            '/[a-z]+/i',
                            fn(array $s): string => preg_match('/^i/i', $s[0]) === 1
                                ? strtoupper($s[0])
                                : ucfirst(strtolower($s[0])),
                            $m[2],
                        );
        }
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
