<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

/**
 * A school grade: PK, KG, 01 to 13, as the CEDS entry grade level codes that OneRoster 1.2 uses. Ordered.
 */
final readonly class GradeLevel
{
    public const LOWEST = -1;

    public const HIGHEST = 13;

    /** An order above every grade's. */
    public const BEYOND = 99;

    private const WORDS = [
        'pk' => -1,
        'prek' => -1,
        'prekindergarten' => -1,
        'preschool' => -1,
        'nursery' => -1,
        'k' => 0,
        'kg' => 0,
        'kindergarten' => 0,
        'kinder' => 0,
        'reception' => 0,
        'kdg' => 0,
        'kdgn' => 0,
        'kind' => 0,
        'kf' => 0,
        'kh' => 0,
        'tk' => 0,
        'transitionalkindergarten' => 0,
        'jk' => -1,
        'jrk' => -1,
        'juniorkindergarten' => -1,
        'sk' => 0,
        'srk' => 0,
        'seniorkindergarten' => 0,
    ];

    /**
     * Classes for children of four, which some schools number: "Pre-K 4", "K4", "KG1"; and of five: "K5", "KG2". "K-5"
     * is a school's range of grades, and nobody's grade.
     */
    private const BEFORE_SCHOOL = [
        '/^(?:pre-? ?k|pk|prek) ?-? ?[34]$|^k ?4$|^kg ?1$/' => -1,
        '/^k ?5$|^kg ?2$/' => 0,
    ];

    private const ROMAN =
        '/^(?:(?:grade|gr|klasse|klasa|classe|clase|grado|grad|class|form)\.? +)?(i{1,3}|iv|' .
        'vi{0,3}|ix|xi{0,2})\.?$/';

    private const CHINESE = [
        '十二' => 12,
        '十一' => 11,
        '十' => 10,
        '九' => 9,
        '八' => 8,
        '七' => 7,
        '六' => 6,
        '五' => 5,
        '四' => 4,
        '三' => 3,
        '二' => 2,
        '一' => 1,
    ];

    /** Numbers after the word for a grade; alone they may count anything. */
    private const COUNTED = [
        'one' => 1,
        'two' => 2,
        'three' => 3,
        'four' => 4,
        'five' => 5,
        'six' => 6,
        'seven' => 7,
        'eight' => 8,
        'nine' => 9,
        'ten' => 10,
        'eleven' => 11,
        'twelve' => 12,
    ];

    /** Arabic ordinals, and the classes of a French primary school. Common practice, no source; from memory. */
    // prettier-ignore
    private const ABROAD = [
        'الأول' => 1, 'الاول' => 1, 'الثاني' => 2, 'الثالث' => 3, 'الرابع' => 4, 'الخامس' => 5, 'السادس' => 6,
        'السابع' => 7, 'الثامن' => 8, 'التاسع' => 9, 'العاشر' => 10, 'الحادي عشر' => 11, 'الثاني عشر' => 12,
        'cp' => 1, 'ce1' => 2, 'ce2' => 3, 'cm1' => 4, 'cm2' => 5,
    ];

    /** Grades in words, as English-speaking schools say them. */
    private const NUMBERED = [
        'first' => 1,
        'second' => 2,
        'third' => 3,
        'fourth' => 4,
        'fifth' => 5,
        'sixth' => 6,
        'seventh' => 7,
        'eighth' => 8,
        'ninth' => 9,
        'tenth' => 10,
        'eleventh' => 11,
        'twelfth' => 12,
        'thirteenth' => 13,
        'freshman' => 9,
        'sophomore' => 10,
        'junior' => 11,
        'senior' => 12,
        'primero' => 1,
        'segundo' => 2,
        'tercero' => 3,
        'cuarto' => 4,
        'quinto' => 5,
        'sexto' => 6,
    ];

    /** @param  int  $order -1 for PK, 0 for KG, then the number of the grade */
    private function __construct(public int $order) {}

    /** Reads "5", "05", "5th", "Grade 5", "Gr. 5", "Year 5", "K", "5.0"; null if it is no grade. */
    public static function read(string $cell): ?self
    {
        // "Kindergarten (AM)", "Grade: 5", "6 - Middle"
        $cell = mb_strtolower(
            trim((string) preg_replace(['/\(.*?\)/u', '/:/', '/^(\d{1,2}) [-–] \p{L}.*$/u'], ['', ' ', '$1'], $cell)),
        );
        if ($cell === '0' || $cell === '00') {
            return new self(0);
        }
        foreach (self::BEFORE_SCHOOL as $pattern => $order) {
            if (preg_match($pattern, $cell) === 1) {
                return new self($order);
            }
        }
        $word = (string) preg_replace(['/^(grade|gr)\b/', '/[^a-z]/'], '', $cell);
        if (isset(self::WORDS[$word]) && preg_match('/\d/', $cell) !== 1) {
            return new self(self::WORDS[$word]);
        }
        $said = self::NUMBERED[(string) preg_replace('/(grade|grader|year|grado)$/', '', $word)] ?? null;
        if ($said !== null && preg_match('/\d/', $cell) !== 1) {
            return new self($said);
        }
        if (
            preg_match('/^(?:grade|gr|year|class|form)\.? ([a-z]+)$/', $cell, $m) === 1 &&
            isset(self::COUNTED[$m[1]])
        ) {
            return new self(self::COUNTED[$m[1]]);
        }
        $abroad = self::ABROAD[(string) preg_replace('/^(?:الصف|الفصل) /u', '', $cell)] ?? null;
        if ($abroad !== null) {
            return new self($abroad);
        }
        // One letter alone is a class as often as a number.
        if (strlen($cell) > 1 && preg_match(self::ROMAN, $cell, $m) === 1) {
            return new self(self::roman($m[1]));
        }
        if (
            preg_match('/^(?:小学|第)?([一二三四五六七八九十]{1,2})年[级級]?$/u', $cell, $m) === 1 &&
            isset(self::CHINESE[$m[1]])
        ) {
            return new self(self::CHINESE[$m[1]]);
        }
        if (
            preg_match(
                '/^(?:grade|gr|g|grd|std|standard|primary|year|yr|y|class|grado|curso|niveau|klasse|lớp|' .
                    'клас|年级)?\.?\s*' .
                    '0*(\d{1,2})(?:\.0+)?\s*' .
                    '(?:st|nd|rd|th|º|ª|°|e|ème|er|ro|do|to|mo|vo|no|\.|-?й|年[级級]?|학년)?\s*' .
                    '(?:grade|grader|gr|grado|klasse|jahrgang|клас|класс|ano|série|serie|année|annee|klas|' .
                    'klass)?\.?$/u',
                $cell,
                $m,
            ) === 1
        ) {
            $n = (int) $m[1];

            return $n >= 1 && $n <= 13 ? new self($n) : null;
        }

        return null;
    }

    private static function roman(string $numeral): int
    {
        $n = 0;
        foreach (['ix' => 9, 'iv' => 4, 'x' => 10, 'v' => 5, 'i' => 1] as $sign => $worth) {
            $n += $worth * substr_count($numeral, $sign);
            $numeral = str_replace($sign, '', $numeral);
        }

        return $n;
    }

    public static function of(int $order): self
    {
        return new self(max(self::LOWEST, min(self::HIGHEST, $order)));
    }

    /** @return list<string> every stored code, lowest grade first */
    public static function codes(): array
    {
        return array_map(fn(int $order): string => self::of($order)->code(), range(self::LOWEST, self::HIGHEST));
    }

    /** The stored code: PK, KG, 01 .. 13. */
    public function code(): string
    {
        return match ($this->order) {
            -1 => 'PK',
            0 => 'KG',
            default => sprintf('%02d', $this->order),
        };
    }

    /** As said: "kindergarten", "grade 5". */
    public function label(): string
    {
        return match ($this->order) {
            -1 => 'pre-kindergarten',
            0 => 'kindergarten',
            default => 'grade ' . $this->order,
        };
    }

    /** As set in a table: PK, K, 5. */
    public function short(): string
    {
        return match ($this->order) {
            -1 => 'PK',
            0 => 'K',
            default => (string) $this->order,
        };
    }

    public function next(): self
    {
        return new self($this->order + 1);
    }
}
