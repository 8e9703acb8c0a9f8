<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** A letter or a text as one of its receivers gets it. */
final readonly class LetterPreview extends Resource
{
    /** @param  int  $parts of a text message; 0 of a mail */
    public function __construct(
        public string $to,
        public string $language,
        public string $subject,
        public string $text,
        public int $parts = 0,
    ) {}
}
