<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use InvalidArgumentException;

/** The words passphrases are made of. */
final readonly class WordList
{
    /** @param  list<string>  $words distinct lower-case words of the letters a to z */
    public function __construct(public array $words)
    {
        if (count($words) < 256 || count(array_unique($words)) !== count($words)) {
            throw new InvalidArgumentException('A word list has at least 256 words, none twice.');
        }
    }

    /** One word a line. */
    public static function fromText(string $text): self
    {
        return new self(array_values(array_filter(array_map(trim(...), explode("\n", $text)))));
    }

    /** Bits of a passphrase of that many words drawn at random. */
    public function bits(int $words): float
    {
        return $words * log(count($this->words), 2);
    }
}
