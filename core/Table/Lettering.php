<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use UConverter;

/**
 * Text of a file as UTF-8, and what its bytes were. Files that are not in Unicode do not say what they are in: of
 * the encodings that school offices meet, the one that makes words of the bytes above 127 is taken. Which letters a
 * language is written with: common practice, no source; from memory.
 */
final readonly class Lettering
{
    private const USUAL = 'ibm-5348_P100-1997';

    private const NONE = "\u{FFFD}";

    /** What a letter by itself is worth: it is a sign of another encoding as likely as not. */
    private const ALONE = 0.2;

    /** What another sign is worth, where it is no part of a word. */
    private const SIGN = 0.3;

    /** A letter beyond ASCII as UTF-8 writes it, in bytes. */
    private const UNICODE = '/[\xC2-\xDF][\x80-\xBF]|[\xE0-\xEF][\x80-\xBF]{2}|[\xF0-\xF4][\x80-\xBF]{3}/';

    /** Signs that may touch a word. */
    private const PLAIN = '/[\p{P}\x{A0}°€№\x{3000}\x{FFFD}]/u';

    /** Lines with a byte above 127 that are looked at. */
    private const SAMPLE = 400;

    /** Letters beyond ASCII of the languages that Western encodings are used for, each language by itself. */
    // prettier-ignore
    private const WESTERN = [
        'áéíóúüñªº', 'àâæçéèêëîïôœùûüÿªº', 'äöüßªº', 'áàâãçéêíóôõúªº', 'àèéìíîòóùúªº', 'éèëïíóöüäªº', 'åäöæøéüªº', 'áéíóúýþæöðªº',
        'àçéèíïóòúüªº',
    ];

    // prettier-ignore
    private const CENTRAL = [
        'ąćęłńóśźż', 'áčďéěíňóřšťúůýž', 'áäčďéíĺľňóôŕšťúýž', 'áéíóöőúüű', 'čćđšž', 'ăâîşţ', 'äöüß',
    ];

    private const TURKISH = ['çğıöşüâîû'];

    /** By ICU's own names, which do not depend on its version. The first of those that do equally well is taken. */
    private const ENCODINGS = [
        self::USUAL => ['Western European letters (Windows-1252)', self::WESTERN],
        'ibm-923_P100-1998' => ['Western European letters (ISO 8859-15)', self::WESTERN],
        'macos-0_2-10.2' => ['Western European letters as an old Mac wrote them', self::WESTERN],
        'ibm-5346_P100-1998' => ['Central European letters (Windows-1250)', self::CENTRAL],
        'ibm-5350_P100-1998' => ['Turkish letters (Windows-1254)', self::TURKISH],
        'ibm-912_P100-1995' => ['Central European letters (ISO 8859-2)', self::CENTRAL],
        'ibm-850_P100-1995' => ['Western European letters as DOS wrote them', self::WESTERN],
        'ibm-852_P100-1995' => ['Central European letters as DOS wrote them', self::CENTRAL],
        'ibm-5347_P100-1998' => ['Cyrillic (Windows-1251)', '\p{Cyrillic}'],
        'ibm-9447_P100-2002' => ['Hebrew (Windows-1255)', '\p{Hebrew}'],
        'ibm-1168_P100-2002' => ['Cyrillic (KOI8-U)', '\p{Cyrillic}'],
        'ibm-866_P100-1995' => ['Cyrillic as DOS wrote it', '\p{Cyrillic}'],
        'ibm-5349_P100-1998' => ['Greek (Windows-1253)', '\p{Greek}'],
        'ibm-9448_X100-2005' => ['Arabic (Windows-1256)', '\p{Arabic}'],
        'windows-949-2000' => ['Korean (Windows-949)', '\p{Hangul}'],
        'gb18030' => ['Chinese (GB 18030)', '\p{Han}'],
        'windows-950-2000' => ['Chinese (Big5)', '\p{Han}'],
        'ibm-943_P15A-2003' => ['Japanese (Shift JIS)', '\p{Han}\p{Hiragana}\p{Katakana}ー'],
    ];

    /** Bytes of the signs that are in daily use: text of another encoding, misread, is full of rare ones. */
    private const DAILY = [
        'gb18030' => '/^(?:[\xB0-\xD7][\xA1-\xFE])+$/',
        'windows-950-2000' => '/^(?:[\xA4-\xC6].)+$/s',
        'windows-949-2000' => '/^(?:[\xB0-\xC8][\xA1-\xFE])+$/',
        'ibm-943_P15A-2003' => '/^(?:[\x81-\x83\x88-\x97].)+$/s',
    ];

    /**
     * @param  string  $text UTF-8
     * @param  string  $encoding UTF-8, UTF-16LE, UTF-16BE, or ICU's name for it
     */
    private function __construct(public string $text, public string $encoding) {}

    /** By byte order mark, then as UTF-8 if it is valid, then UTF-16 by its zero bytes, else by the words it makes. */
    public static function read(string $bytes): self
    {
        $head = substr($bytes, 0, 2000);
        $zeros = substr_count($head, "\0");
        [$rest, $encoding] = match (true) {
            str_starts_with($bytes, "\xEF\xBB\xBF") => [substr($bytes, 3), 'UTF-8'],
            str_starts_with($bytes, "\xFF\xFE") => [substr($bytes, 2), 'UTF-16LE'],
            str_starts_with($bytes, "\xFE\xFF") => [substr($bytes, 2), 'UTF-16BE'],
            $zeros === 0 && mb_check_encoding($bytes, 'UTF-8') => [$bytes, 'UTF-8'],
            $zeros > strlen($head) / 5 && $zeros < strlen($head) * 0.6 => [
                $bytes,
                $head[0] === "\0" ? 'UTF-16BE' : 'UTF-16LE',
            ],
            self::isNearlyUnicode($bytes) => [self::mended($bytes), 'UTF-8'],
            default => [$bytes, self::likeliest($bytes)],
        };
        $text = match (true) {
            $encoding === 'UTF-8' => $rest,
            str_starts_with($encoding, 'UTF') => mb_convert_encoding($rest, 'UTF-8', $encoding),
            default => str_replace(self::NONE, '', self::of($encoding, $rest)),
        };

        return new self(mb_scrub((string) $text, 'UTF-8'), $encoding);
    }

    /** A sentence on what the letters were taken for; '' where there is hardly a doubt. */
    public function note(): string
    {
        return str_starts_with($this->encoding, 'UTF') || $this->encoding === self::USUAL
            ? ''
            : 'The file does not say how its letters are written. They are read as ' .
                    self::ENCODINGS[$this->encoding][0] .
                    ': look at a few names, and save it as UTF-8 or .xlsx where they are wrong.';
    }

    /** Whether a text is UTF-8 but for a few bytes: one cell pasted from elsewhere, one letter cut in two. */
    private static function isNearlyUnicode(string $bytes): bool
    {
        preg_match_all(self::UNICODE, $bytes, $whole);

        return 10 * strlen(implode('', $whole[0])) > 9 * (int) preg_match_all('/[\x80-\xFF]/', $bytes);
    }

    private static function mended(string $bytes): string
    {
        return (string) preg_replace_callback(
            '/(' . trim(self::UNICODE, '/') . ')|[\x80-\xFF]/',
            fn(array $m): string => isset($m[1]) ? $m[0] : self::of(self::USUAL, $m[0]),
            $bytes,
        );
    }

    private static function likeliest(string $bytes): string
    {
        preg_match_all('/[^\n\r\x80-\xFF]*+[\x80-\xFF][^\n\r]*/', $bytes, $lines);
        $sample = implode("\n", array_slice($lines[0], 0, self::SAMPLE));
        $best = self::USUAL;
        $bestScore = -INF;
        foreach (array_keys(self::ENCODINGS) as $encoding) {
            $score = self::score($sample, $encoding);
            if ($score > $bestScore) {
                [$best, $bestScore] = [$encoding, $score];
            }
        }

        return $best;
    }

    /** As UTF-8; what the encoding has no letter for is {@see self::NONE}. */
    private static function of(string $encoding, string $bytes): string
    {
        return (string) UConverter::transcode($bytes, 'UTF-8', $encoding);
    }

    /** How many bytes above 127 become letters of words in which they can stand, less those that do not. */
    private static function score(string $sample, string $encoding): float
    {
        $text = self::of($encoding, $sample);
        [, $letters] = self::ENCODINGS[$encoding];
        preg_match_all('/[\p{L}\p{M}]+|[^\x00-\x7F]/u', $text, $runs);
        $score = 0.0;
        $capitals = $small = 0;
        $of = array_fill(0, is_string($letters) ? 1 : count($letters), 0.0);
        foreach ($runs[0] as $run) {
            if (preg_match('/[^\x00-\x7F]/', $run) !== 1) {
                continue;
            }
            $beyond = (string) preg_replace('/[\x00-\x7F]+/', '', $run);
            $bytes = mb_strlen($beyond) * (isset(self::DAILY[$encoding]) ? 2 : 1);
            if (preg_match('/\p{L}/u', $run) !== 1) {
                $score += self::SIGN;
            } elseif (is_string($letters)) {
                $of[0] += self::canStand($run, $letters, $encoding)
                    ? $bytes * (mb_strlen($run) > 1 ? 1.0 : self::ALONE)
                    : -$bytes;
                $capitals += preg_match('/^\p{Lu}/u', $run);
                $small += preg_match('/^\p{Ll}/u', $run);
            } elseif (!self::isCased($run) || preg_match('/^[\p{Latin}\p{M}]+$/u', $run) !== 1) {
                $score -= $bytes;
            } else {
                // "ões" is Portuguese; before anything else the letter is Hungarian, misread.
                $plain = (string) preg_replace('/õ(?!e)/u', '?', mb_strtolower(str_replace('İ', 'ı', $run)));
                foreach ($letters as $i => $alphabet) {
                    preg_match_all("/[$alphabet]/u", $plain, $known);
                    // No language is written with hardly a plain letter.
                    $most = max(2, (int) (0.6 * mb_strlen($run)));
                    $fits = mb_strlen($beyond) > $most ? -$bytes : 2 * count($known[0]) - $bytes;
                    $of[$i] += $fits * (mb_strlen($run) > 1 ? 1.0 : self::ALONE);
                }
            }
        }

        // No other sign is a part of a word.
        $score -= (int) preg_match_all(
            '/(?<=\p{L})[^\x00-\x7F\p{L}\p{M}]|[^\x00-\x7F\p{L}\p{M}](?=\p{L})/u',
            $text,
            $signs,
        );
        $score += count(preg_grep(self::PLAIN, $signs[0]) ?: []);
        // Names have capitals where the script has any.
        $most = max($of) * ($small > 0 && $capitals === 0 ? 0.9 : 1.0);

        return $score + $most - 2 * substr_count($text, self::NONE);
    }

    /** Whether a run of letters can be a word of a script. */
    private static function canStand(string $run, string $script, string $encoding): bool
    {
        return preg_match("/^\\p{L}[$script\\p{M}]*$/u", $run) === 1 &&
            preg_match("/^[$script]/u", $run) === 1 &&
            self::isCased($run) &&
            (!isset(self::DAILY[$encoding]) ||
                preg_match(self::DAILY[$encoding], (string) UConverter::transcode($run, $encoding, 'UTF-8')) === 1);
    }

    /** Capitals begin a word or make it up; a letter misread is one in its midst. */
    private static function isCased(string $run): bool
    {
        return preg_match('/^(?:Mac|Mc|De|Di|Du|La|Le|Van)?(?:\p{Lu}?[^\p{Lu}]*|[^\p{Ll}]+)$/u', $run) === 1;
    }
}
