<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Mailroom\LetterTexts;

/** Words of a letter, to be kept for another time. */
final readonly class LetterTemplateWish
{
    /**
     * @param  bool  $shared for all of the school who write letters
     * @param  array<string, string|null>  $subjects by tag, in other languages
     * @param  array<string, string|null>  $bodies the same
     */
    public function __construct(
        #[Must('max:' . LetterTexts::MOST_NAME)] public string $name,
        #[Must('max:40000')] public string $body,
        #[Must('max:400')] public string $subject = '',
        public bool $shared = false,
        #[Must('max:10', each: 'nullable|string|max:400')] public array $subjects = [],
        #[Must('max:10', each: 'nullable|string|max:40000')] public array $bodies = [],
    ) {}

    /** @return array<string, array{subject: string, body: string}> by tag */
    public function texts(): array
    {
        return LetterTexts::of($this->subject, $this->body, $this->subjects, $this->bodies);
    }
}
