<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Values\Language;

/** What somebody wants said to students and families. */
final readonly class NoticeWish
{
    /** @var array<string, NoticeText> by tag: what it says in other languages than the writer’s */
    public array $texts;

    /**
     * @param  string|null  $day YYYY-MM-DD: when it happens, or is due
     * @param  bool  $guardiansOnly whether students do not read it
     * @param  array<string, NoticeText>  $texts by tag, in other languages
     *
     * @throws Refusal
     */
    public function __construct(
        public NoticeKind $kind,
        public NoticeText $text,
        public ?string $day,
        public bool $guardiansOnly,
        array $texts,
    ) {
        if ($kind !== NoticeKind::Notice && $day === null) {
            throw new Refusal('Say the day.', 'day');
        }
        foreach (array_keys($texts) as $language) {
            if ($language === 'en' || !in_array($language, Language::WRITTEN, true)) {
                throw new Refusal('The product does not write that language.', 'texts');
            }
        }
        ksort($texts);
        $this->texts = $texts;
    }

    /** @return array<string, string|null> as it is kept */
    public function columns(): array
    {
        $texts = array_map(fn(NoticeText $t): array => ['title' => $t->title, 'body' => $t->body], $this->texts);

        return [
            'kind' => $this->kind->value,
            'readers' => $this->guardiansOnly ? 'guardians' : 'all',
            'title' => $this->text->title,
            'body' => $this->text->body === '' ? null : $this->text->body,
            'on_day' => $this->kind === NoticeKind::Notice ? null : $this->day,
            'texts' => $texts === [] ? null : json_encode($texts, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ];
    }
}
