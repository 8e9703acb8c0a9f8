<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** The words that headings are made of. */
final class HeadingVocabulary
{
    /** @var array<string, true> */
    private static array $words = [];

    /** @var array<string, string> heading without what says whose it is, to field */
    private static array $asides = [];

    /**
     * Whether a cell holds one of them; most cells of a list do not, which is told in a fraction of the time that
     * {@see Heading::read} takes. A slip of the finger in the only such word is not seen through here.
     */
    public static function holds(string $cell): bool
    {
        $words = self::$words !== [] ? self::$words : (self::$words = self::all());
        foreach (explode(' ', NameKey::of($cell)) as $word) {
            if (isset($words[$word]) || isset($words[rtrim($word, '1234s')])) {
                return true;
            }
        }

        return false;
    }

    /**
     * What a column says beside who somebody is.
     *
     * @param  list<string>  $words of the heading, plain
     * @return string|null value of a {@see Field}
     */
    public static function aside(array $words): ?string
    {
        if (self::$asides === []) {
            foreach (HeadingWords::ASIDE as $field => $phrases) {
                foreach ($phrases as $phrase) {
                    self::$asides[self::bare(explode(' ', NameKey::of($phrase)))] = $field;
                }
            }
        }

        return self::$asides[self::bare($words)] ?? null;
    }

    /** @param  list<string>  $words without those that only say whose it is, or nothing */
    private static function bare(array $words): string
    {
        $whose = fn(string $w): bool => in_array($w, HeadingWords::STUDENT, true) ||
            isset(HeadingWords::GUARDIAN[rtrim($w, '1234s')]) ||
            in_array($w, HeadingWords::FILLERS, true);
        $bare = array_filter($words, fn(string $w): bool => !$whose($w));

        return implode(' ', $bare === [] ? $words : $bare);
    }

    /** @return array<string, true> */
    private static function all(): array
    {
        $words = [];
        $phrases = [
            ...array_merge(...array_values(HeadingWords::PHRASES)),
            ...array_merge(...array_values(HeadingWords::ASIDE)),
            ...HeadingWords::STUDENT,
            ...array_keys(HeadingWords::GUARDIAN),
            ...HeadingWords::LEFT_OUT,
        ];
        foreach ($phrases as $phrase) {
            $words += array_fill_keys(explode(' ', NameKey::of($phrase)), true);
        }

        return $words;
    }
}
