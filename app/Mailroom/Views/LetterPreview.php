<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** A letter as one of its receivers gets it. */
final readonly class LetterPreview extends Resource
{
    public function __construct(
        public string $to,
        public string $language,
        public string $subject,
        public string $text,
    ) {}
}
