<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** The words that headings are made of. */
final class HeadingVocabulary
{
    /** @var array<string, true> */
    private static array $words = [];

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

    /** @return array<string, true> */
    private static function all(): array
    {
        $words = [];
        $phrases = [
            ...array_merge(...array_values(HeadingWords::PHRASES)),
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
