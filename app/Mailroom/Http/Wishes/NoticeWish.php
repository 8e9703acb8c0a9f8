<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Mailroom\NoticeText;
use Vantrel\Core\Mailroom\NoticeWish as Wanted;
use Vantrel\Core\Records\NoticeKind;

/** A notice, a date or work: what it says, in the writer’s language and in others. */
final readonly class NoticeWish
{
    /**
     * @param  string|null  $day YYYY-MM-DD
     * @param  array<string, string|null>  $titles by tag, in other languages
     * @param  array<string, string|null>  $bodies the same
     * @param  int  $version of it that was looked at, where it is changed
     */
    public function __construct(
        public NoticeKind $kind,
        #[Must('max:400')] public string $title,
        #[Must('max:8000')] public ?string $body = null,
        #[Must('date_format:Y-m-d')] public ?string $day = null,
        public bool $guardiansOnly = false,
        #[Must('max:10', each: 'nullable|string|max:400')] public array $titles = [],
        #[Must('max:10', each: 'nullable|string|max:8000')] public array $bodies = [],
        #[Must('min:0')] public int $version = 0,
    ) {}

    public function wanted(): Wanted
    {
        $texts = [];
        foreach ($this->titles as $language => $title) {
            $body = trim((string) ($this->bodies[$language] ?? ''));
            if (trim((string) $title) !== '' || $body !== '') {
                $texts[$language] = new NoticeText((string) $title, $body, (string) $language);
            }
        }

        return new Wanted(
            $this->kind,
            new NoticeText($this->title, (string) $this->body),
            $this->day,
            $this->guardiansOnly,
            $texts,
        );
    }
}
