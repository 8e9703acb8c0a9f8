<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Matching\JaroWinkler;
use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Names\NameKey;

/** How well a word of somebody's fits one that was typed. Common practice, no source. */
final class WordFit
{
    /** Below: another word. */
    public const LEAST = 0.5;

    private const BEGINNING = 0.9;

    private const OTHER_FORM = 0.85;

    private const SAME_LOOSELY = 0.88;

    /** What a word with slips can reach at most. */
    private const SLIPPED = 0.85;

    /** From here on two spellings are one word with slips. */
    private const NEAR = 0.8;

    /** @return float 1 the same, {@see LEAST} to 1 fits, 0 does not */
    public static function of(string $typed, string $word): float
    {
        if ($typed === $word) {
            return 1.0;
        }
        // The more of it is typed, the likelier it is meant.
        if (str_starts_with($word, $typed)) {
            return self::BEGINNING + (0.09 * strlen($typed)) / strlen($word);
        }
        if (strlen($typed) < 2 || str_contains($typed . $word, '@')) {
            return 0.0;
        }
        if (NameKey::loose($typed) === NameKey::loose($word)) {
            return self::SAME_LOOSELY;
        }
        $near = JaroWinkler::similarity($typed, $word);
        if (array_intersect(GivenNames::of($typed), GivenNames::of($word)) !== []) {
            return max(self::OTHER_FORM - 0.1 + 0.1 * $near, $near * self::SLIPPED);
        }
        // One slip in a short word brings the comparator down further than it should.
        $slip = strlen($typed) >= 4 && levenshtein($typed, $word) <= 1;

        return $slip || $near >= self::NEAR ? max(self::LEAST, $near * self::SLIPPED) : 0.0;
    }
}
