<?php

declare(strict_types=1);

// mutates: Accounts

use Vantrel\Core\Accounts\WordList;

// The EFF short word list of 1,296 words (2016), as Debian's package xkcdpass installs it.
const EFF_SHORT = '/usr/lib/python3/dist-packages/xkcdpass/static/eff-short';

it('takes every word of passphrases from the published list', function (): void {
    $published = array_map(trim(...), file(EFF_SHORT) ?: []);
    expect(array_filter($published))->toHaveCount(1296);
    $ours = WordList::fromText((string) file_get_contents(__DIR__ . '/../../resources/words/passphrase.txt'))->words;
    expect(array_diff($ours, $published))->toBe([])->and(count($ours))->toBeGreaterThan(1000);
});
