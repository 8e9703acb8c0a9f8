<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\GivenNames;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;

/**
 * Beginnings of words by which one person is looked for in a long list before the matcher compares: wide enough for the
 * ways a name is really typed (short forms, other languages and scripts, given and family name swapped, one of two
 * family names), narrow enough for an index. Someone is worth comparing who has a word of each kind in their plain
 * name.
 */
final readonly class Beginnings
{
    private const FAMILY = 3;

    /** What rules of romanising write in different ways from the second letter on (Шевчук: Shevchuk, Sevcuk). */
    private const DIGRAPHS = ['sh', 'sc', 'ch', 'cz', 'zh', 'kh', 'ts', 'ph', 'ae', 'oe', 'ue'];

    /**
     * @param  list<string>  $given a letter each
     * @param  list<string>  $family up to three letters each, one where the name can be romanised in several ways
     */
    private function __construct(public array $given, public array $family) {}

    /** Null where the name has too little to look for: one of its parts is empty. */
    public static function of(PersonName $name): ?self
    {
        $given = NameKey::of($name->given);
        $family = NameKey::of($name->family);
        $foreign = preg_match('/[^\x00-\x{24F}]/u', $name->family) === 1;
        if ($given === '' || $family === '') {
            return null;
        }

        return new self(
            GivenNames::initials($given),
            array_values(
                array_unique(
                    array_map(
                        fn(string $word): string => substr(
                            $word,
                            0,
                            $foreign || in_array(substr($word, 0, 2), self::DIGRAPHS, true) ? 1 : self::FAMILY,
                        ),
                        explode(' ', $family),
                    ),
                ),
            ),
        );
    }
}
