<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\PrintRoom\LetterKind;

/** Letters to print. */
final readonly class LetterJob
{
    /**
     * @param  string  $paper a4 or letter
     * @param  string|null  $language tag of the one for all; null for each family's own
     * @param  string  $otherwise tag of the one for families whose language is not known or not written
     * @param  bool  $without whether our words stand where the school's own are missing in a language
     */
    public function __construct(
        public LetterKind $kind,
        public Whom $whom,
        public string $paper = 'a4',
        public ?string $language = null,
        public string $otherwise = 'en',
        public bool $without = false,
    ) {}
}
