<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/** How often a word is a given name and how often a family name, among the people known and in general. */
final readonly class NameBook
{
    /** What a name that is known in general counts for, beside those known here. */
    private const GENERAL = 8;

    /** Doubt that is left for every word. */
    private const DOUBT = 1.0;

    /**
     * @param  array<string, int>  $given plain word to how many known people have it as a given name
     * @param  array<string, int>  $family likewise for family names
     */
    public function __construct(private array $given = [], private array $family = []) {}

    /** Bits for a word's being a given name rather than a family name; 0 where nothing is known of it. */
    public function givenRatherThanFamily(string $word): float
    {
        $given = ($this->given[$word] ?? 0) + (GivenNames::knows($word) ? self::GENERAL : 0);
        $family = ($this->family[$word] ?? 0) + (NameReader::isParticle($word) ? self::GENERAL : 0);

        return log(($given + self::DOUBT) / ($family + self::DOUBT), 2);
    }
}
