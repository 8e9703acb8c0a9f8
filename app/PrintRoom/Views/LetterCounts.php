<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** What a print of letters would come to. */
final readonly class LetterCounts extends Resource
{
    /**
     * @param  list<LanguageCount>  $languages the most first
     * @param  list<string>  $lacking names of those that lack words the school has written elsewhere
     */
    public function __construct(public int $letters, public array $languages, public array $lacking) {}
}
