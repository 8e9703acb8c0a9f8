<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\Language;

/** What a notice says, in one language. */
final readonly class NoticeText
{
    public const MOST_TITLE = 120;

    public const MOST_BODY = 2000;

    public string $title;

    /** '' where the title says it all. */
    public string $body;

    /**
     * @param  string  $tag of the language
     *
     * @throws Refusal
     */
    public function __construct(string $title, string $body, string $tag = 'en')
    {
        $in = $tag === 'en' ? '' : ' in ' . (Language::read($tag)?->name() ?? $tag) . ' too';
        $this->title = Line::of($title);
        $this->body = trim((string) preg_replace(['/\R/u', '/[^\P{Cc}\n]/u'], ["\n", ''], $body));
        if ($this->title === '') {
            throw new Refusal("Write$in, in a few words, what it is.", 'title');
        }
        if (mb_strlen($this->title) > self::MOST_TITLE) {
            throw new Refusal('The first line is at most ' . self::MOST_TITLE . ' characters.', 'title');
        }
        if (mb_strlen($this->body) > self::MOST_BODY) {
            throw new Refusal('That is at most ' . self::MOST_BODY . ' characters.', 'body');
        }
    }
}
