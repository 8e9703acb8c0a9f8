<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Plan\Refusal;

/** What the open sections of a school year are called from now on: words in their names, and what stands instead. */
final readonly class RenameWish
{
    public string $words;

    public string $instead;

    /** @throws Refusal where no words are given to look for */
    public function __construct(public string $yearId, string $words, string $instead)
    {
        $this->words = NameReader::tidy($words);
        $this->instead = NameReader::tidy($instead);
        if ($this->words === '') {
            throw new Refusal('Type the words that are in the names now.', 'words');
        }
    }
}
