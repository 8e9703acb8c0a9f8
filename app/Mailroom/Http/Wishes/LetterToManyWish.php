<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Mailroom\LetterBy;
use Vantrel\Core\Mailroom\LetterTexts;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\Readers;
use Vantrel\Core\Mailroom\Template;

/** A letter to many: to whom, what it says, and when it goes. */
final readonly class LetterToManyWish
{
    /**
     * @param  string|null  $grade only of this grade, as a code
     * @param  list<string>|null  $ids only these people
     * @param  array<string, string|null>  $subjects by tag, in other languages
     * @param  array<string, string|null>  $bodies the same
     * @param  LetterBy  $by mail, text, or a text where no mail arrives
     * @param  list<string>  $files ids of files that go with it
     * @param  string|null  $at when it goes, by the school’s clock
     * @param  bool  $evenQuiet in the quiet hours too
     * @param  string|null  $seen what was looked at: who gets it and what they read; needed to send it
     */
    public function __construct(
        public Readers $readers,
        #[Must('max:40000')] public string $body,
        #[Must('max:400')] public string $subject = '',
        public LetterBy $by = LetterBy::Mail,
        #[Must('max:5', each: 'ulid')] public array $files = [],
        #[Must('max:12')] public ?string $grade = null,
        #[Must('min:1|max:5000', each: 'ulid')] public ?array $ids = null,
        #[Must('max:10', each: 'nullable|string|max:400')] public array $subjects = [],
        #[Must('max:10', each: 'nullable|string|max:40000')] public array $bodies = [],
        #[Must('date_format:Y-m-d\\TH:i')] public ?string $at = null,
        public bool $evenQuiet = false,
        #[Must('size:64')] public ?string $seen = null,
    ) {}

    /** @param  bool  $ofSection whether one section is written to */
    public function letter(bool $ofSection): LetterWish
    {
        $texts = LetterTexts::of($this->subject, $this->body, $this->subjects, $this->bodies);

        return new LetterWish($texts, Template::fields($this->readers, $ofSection), $this->by);
    }
}
