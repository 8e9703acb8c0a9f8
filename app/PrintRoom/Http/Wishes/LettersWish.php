<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;
use App\PrintRoom\LetterJob;
use App\PrintRoom\Whom;
use Vantrel\Core\PrintRoom\LetterKind;

/** Which letters, and in which language. */
final readonly class LettersWish
{
    /**
     * @param  string|null  $language of all letters; each family's own where none is said
     * @param  string  $otherwise for families whose language is not known, or not one we write
     * @param  bool  $without whether our words stand where the school's own are missing in a language
     */
    public function __construct(
        #[Must('in:family,summer')] public LetterKind $kind,
        #[Must('in:a4,letter')] public string $paper = 'a4',
        #[Must('in:en,es,fr,ar,vi,uk,zh')] public ?string $language = null,
        #[Must('in:en,es,fr,ar,vi,uk,zh')] public string $otherwise = 'en',
        public bool $without = false,
    ) {}

    public function job(Whom $whom): LetterJob
    {
        return new LetterJob($this->kind, $whom, $this->paper, $this->language, $this->otherwise, $this->without);
    }
}
