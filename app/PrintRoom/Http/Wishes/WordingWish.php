<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\PrintRoom\LetterKind;

/** Texts of a letter in a language, as the school writes them; an empty one is ours again. */
final readonly class WordingWish
{
    /** @param  array<string, string|null>  $texts by text */
    public function __construct(
        public LetterKind $kind,
        #[Must('in:en,es,fr,ar,vi,uk,zh')] public string $language,
        #[Must('max:40', each: 'nullable|string|max:2000')] public array $texts,
    ) {}
}
