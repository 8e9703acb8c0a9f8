<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use Vantrel\Core\Names\NameKey;

/**
 * A language that a family is written to in, by its tag of IETF BCP 47 (RFC 5646): the primary subtags are the codes of
 * ISO 639-1, where there is one. Names in English and in the languages themselves are from memory.
 */
final readonly class Language
{
    /** Those the product writes in; in the others, English stands in. */
    public const WRITTEN = ['en', 'es', 'fr', 'ar', 'vi', 'uk', 'zh'];

    // prettier-ignore
    private const NAMES = [
        'en' => ['English', 'eng', 'ingles', 'anglais'],
        'es' => ['Spanish', 'spa', 'Español', 'Castellano', 'espagnol'],
        'fr' => ['French', 'fra', 'fre', 'Français', 'frances'],
        'ar' => ['Arabic', 'ara', 'العربية', 'arabe'],
        'vi' => ['Vietnamese', 'vie', 'Tiếng Việt', 'vietnamita', 'vietnamien'],
        'uk' => ['Ukrainian', 'ukr', 'Українська', 'ucraniano', 'ukrainien'],
        'zh' => ['Chinese', 'zho', 'chi', '中文', 'Mandarin', 'Cantonese', 'chino', 'chinois', '汉语', '普通话', '廣東話'],
        'am' => ['Amharic', 'amh'],
        'bn' => ['Bengali', 'ben', 'Bangla'],
        'bs' => ['Bosnian', 'bos'],
        'de' => ['German', 'deu', 'ger', 'Deutsch'],
        'fa' => ['Persian', 'fas', 'per', 'Farsi', 'Dari', 'فارسی'],
        'gu' => ['Gujarati', 'guj'],
        'hi' => ['Hindi', 'hin', 'हिन्दी'],
        'hmn' => ['Hmong'],
        'ht' => ['Haitian Creole', 'hat', 'Kreyòl Ayisyen', 'Haitian', 'Creole'],
        'hy' => ['Armenian', 'hye', 'arm'],
        'it' => ['Italian', 'ita', 'Italiano'],
        'ja' => ['Japanese', 'jpn', '日本語'],
        'ka' => ['Georgian', 'kat', 'geo'],
        'km' => ['Khmer', 'khm', 'Cambodian'],
        'ko' => ['Korean', 'kor', '한국어'],
        'ku' => ['Kurdish', 'kur'],
        'my' => ['Burmese', 'mya', 'bur'],
        'ne' => ['Nepali', 'nep'],
        'pa' => ['Punjabi', 'pan', 'Panjabi'],
        'pl' => ['Polish', 'pol', 'Polski'],
        'ps' => ['Pashto', 'pus'],
        'pt' => ['Portuguese', 'por', 'Português', 'portugues'],
        'ro' => ['Romanian', 'ron', 'rum', 'Română'],
        'ru' => ['Russian', 'rus', 'Русский'],
        'so' => ['Somali', 'som', 'Soomaali'],
        'sq' => ['Albanian', 'sqi', 'alb', 'Shqip'],
        'sw' => ['Swahili', 'swa', 'Kiswahili'],
        'ta' => ['Tamil', 'tam'],
        'te' => ['Telugu', 'tel'],
        'th' => ['Thai', 'tha'],
        'ti' => ['Tigrinya', 'tir'],
        'tl' => ['Tagalog', 'tgl', 'Filipino', 'fil'],
        'tr' => ['Turkish', 'tur', 'Türkçe'],
        'ur' => ['Urdu', 'urd', 'اردو'],
    ];

    private function __construct(public string $code) {}

    /** @param  string  $typed a tag, a code of three letters or a name; of several languages the first */
    public static function read(string $typed): ?self
    {
        $first = trim((string) preg_replace('/[,;\/&(].*$/us', '', $typed));
        $key = NameKey::of($first);
        // "es-MX", "zh_Hant": the region and the script do not change what is written.
        $tag = preg_match('/^([a-z]{2,3})[-_][a-z]{2,4}$/i', $first, $m) === 1 ? strtolower($m[1]) : $key;
        $known = self::words();
        $code = $known[$key] ?? ($known[$tag] ?? null);

        return $code === null ? null : new self($code);
    }

    /** @return array<string, string> codes and names, plain, to codes */
    private static function words(): array
    {
        /** @var array<string, string> $words */
        static $words = [];
        if ($words === []) {
            foreach (self::NAMES as $code => $names) {
                foreach ([$code, ...$names] as $name) {
                    $words[NameKey::of($name)] ??= $code;
                }
            }
        }

        return $words;
    }

    /** Its English name. */
    public function name(): string
    {
        return self::NAMES[$this->code][0];
    }

    /** @return array<string, string> codes to English names: those the product writes in first, then by name */
    public static function all(): array
    {
        $all = array_map(fn(array $names): string => $names[0], self::NAMES);
        $others = array_diff_key($all, array_flip(self::WRITTEN));
        asort($others);

        return [...array_intersect_key($all, array_flip(self::WRITTEN)), ...$others];
    }
}
