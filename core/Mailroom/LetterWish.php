<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\Language;

/** A letter to many, each of whom gets one of their own. */
final readonly class LetterWish
{
    public const MOST_BODY = 10_000;

    /** Characters of one that may go as a text: some four parts. */
    public const MOST_TEXT = 600;

    /** Minutes in which one person sends the same letter to the same people once: whoever got no answer tries again. */
    public const ONCE_IN = 60;

    /**
     * @param  array<string, array{subject: string, body: string}>  $texts by tag; English is always among them
     * @param  list<string>  $fields that can be filled in, {@see Template::fields()}
     *
     * @throws Refusal
     */
    public function __construct(public array $texts, array $fields, public LetterBy $by = LetterBy::Mail)
    {
        foreach ($texts as $tag => $text) {
            if (!in_array($tag, Language::WRITTEN, true)) {
                throw new Refusal('The product does not write that language.');
            }
            $in = $tag === 'en' ? '' : ' in ' . (Language::read($tag)?->name() ?? $tag) . ' too';
            if ($by !== LetterBy::Text && Line::of($text['subject']) === '') {
                throw new Refusal("Write$in what it is about.", 'subject');
            }
            if (trim($text['body']) === '') {
                throw new Refusal("Write the letter$in.", 'body');
            }
            $most = $by === LetterBy::Mail ? self::MOST_BODY : self::MOST_TEXT;
            if (mb_strlen($text['body']) > $most) {
                throw new Refusal(
                    ($by === LetterBy::Mail ? 'That' : 'What may go as a text') .
                        ' is at most ' .
                        number_format($most) .
                        ' characters.',
                    'body',
                );
            }
            Template::mustFill($text['subject'], $fields, 'subject');
            Template::mustFill($text['body'], $fields, 'body');
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
        $subject = Line::of(Template::fill($this->texts[$language]['subject'], $values));

        // A text has none: it is found again by how it begins.
        return $subject === '' ? mb_strimwidth(Line::of($this->body($language, $values)), 0, 60, '…') : $subject;
    }

    /** @param  array<string, string>  $values by field */
    public function body(string $language, array $values): string
    {
        return trim(Template::fill($this->texts[$language]['body'], $values)) . "\n";
    }

    /**
     * As a text message: it says whose it is, since a number says nothing.
     *
     * @param  array<string, string>  $values by field, the school among them
     */
    public function text(string $language, array $values): string
    {
        return "{$values['school']}: " . trim($this->body($language, $values));
    }
}
