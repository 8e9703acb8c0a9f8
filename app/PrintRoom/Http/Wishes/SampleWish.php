<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\PrintRoom\LetterKind;

/** A page with made-up names, to look at. */
final readonly class SampleWish
{
    public function __construct(
        public LetterKind $kind,
        #[Must('in:en,es,fr,ar,vi,uk,zh')] public string $language = 'en',
        #[Must('in:a4,letter')] public string $paper = 'a4',
    ) {}
}
