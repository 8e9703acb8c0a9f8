<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** Words of a letter that are kept for another time. */
final readonly class LetterTemplateLine extends Resource
{
    /**
     * @param  bool  $shared whether they are the school’s
     * @param  array<string, string>  $subjects by tag, in other languages
     * @param  array<string, string>  $bodies the same
     */
    public function __construct(
        public string $id,
        public string $name,
        public bool $shared,
        public string $subject,
        public string $body,
        public array $subjects,
        public array $bodies,
    ) {}
}
