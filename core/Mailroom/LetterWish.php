<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\Language;

/** A letter to many, each of whom gets one of their own. */
final readonly class LetterWish
{
    public const MOST_BODY = 10_000;

    /**
     * @param  array<string, array{subject: string, body: string}>  $texts by tag; English is always among them
     *
     * @throws Refusal
     */
    public function __construct(public array $texts)
    {
        foreach ($texts as $language => $text) {
            if (!in_array($language, Language::WRITTEN, true)) {
                throw new Refusal('The product does not write that language.', 'subjects');
            }
            $subject = Line::of($text['subject']);
            if ($subject === '') {
                throw new Refusal('Write what it is about.', $language === 'en' ? 'subject' : 'subjects');
            }
            if (trim($text['body']) === '') {
                throw new Refusal('Write the letter.', $language === 'en' ? 'body' : 'bodies');
            }
            if (mb_strlen($text['body']) > self::MOST_BODY) {
                throw new Refusal('That is at most ' . number_format(self::MOST_BODY) . ' characters.', 'body');
            }
            Template::mustKnow($text['subject'], 'subject');
            Template::mustKnow($text['body'], 'body');
        }
    }

    /** The language somebody is written to in: their own where the writer has given it. */
    public function language(?string $wanted): string
    {
        return $wanted !== null && isset($this->texts[$wanted]) ? $wanted : 'en';
    }

    /** @param  array<string, string>  $values by field */
    public function subject(string $language, array $values): string
    {
        return Line::of(Template::fill($this->texts[$language]['subject'], $values));
    }

    /** @param  array<string, string>  $values by field */
    public function body(string $language, array $values): string
    {
        return trim(Template::fill($this->texts[$language]['body'], $values)) . "\n";
    }
}
