<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Codes\Randomness;

/**
 * Passphrases for cards that are printed and cut together: three words each, and never two on one sheet that differ
 * by a single letter, so that a smudge or a slip of the finger cannot turn one child's into another's.
 */
final class PassphraseSheet
{
    public const WORDS = 3;

    /** @var array<string, true> every passphrase given, and each of those with one letter blanked out */
    private array $near = [];

    public function __construct(private readonly WordList $list, private readonly Randomness $random) {}

    /** A passphrase such as `maple otter candy`. */
    public function draw(): string
    {
        do {
            $words = [];
            for ($i = 0; $i < self::WORDS; $i++) {
                $words[] = $this->list->words[$this->random->below(count($this->list->words))];
            }
            $phrase = implode(' ', $words);
        } while (!$this->accepts($phrase));

        return $phrase;
    }

    /** Takes the phrase unless one on this sheet is the same but for one letter changed, added or left out. */
    public function accepts(string $phrase): bool
    {
        $keys = self::keys($phrase);
        foreach ($keys as $key) {
            if (isset($this->near[$key])) {
                return false;
            }
        }
        foreach ($keys as $key) {
            $this->near[$key] = true;
        }

        return true;
    }

    /** As typed by a child: any case, any separator, to the form that is compared. */
    public static function fold(string $typed): string
    {
        return trim((string) preg_replace('/[^a-z]+/', ' ', mb_strtolower(mb_scrub($typed))));
    }

    /**
     * The phrase with each letter left out in turn, with a mark where it stood and without one: two phrases that differ
     * by one substitution share the first kind, by one insertion the second.
     *
     * @return list<string>
     */
    private static function keys(string $phrase): array
    {
        $keys = [$phrase];
        for ($i = 0, $n = strlen($phrase); $i < $n; $i++) {
            $keys[] = substr($phrase, 0, $i) . '*' . substr($phrase, $i + 1);
            $keys[] = substr($phrase, 0, $i) . substr($phrase, $i + 1);
        }

        return $keys;
    }
}
