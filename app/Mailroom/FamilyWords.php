<?php

declare(strict_types=1);

namespace App\Mailroom;

use DateTimeImmutable;
use DateTimeZone;
use IntlDateFormatter;
use RuntimeException;
use Vantrel\Core\Values\Language;

/** What mails and texts say to families, in their language: `resources/mails`. */
final class FamilyWords
{
    /** @var array<string, array<string, string>> */
    private static array $read = [];

    /** @var array<string, string> */
    private readonly array $words;

    public readonly string $language;

    /** @param  string|null  $language a tag; English stands in for one that nothing is written in */
    public function __construct(?string $language)
    {
        $this->language = in_array($language, Language::WRITTEN, true) ? $language : 'en';
        $this->words = self::$read[$this->language] ??= self::read($this->language);
    }

    /**
     * @param  array<string, string>  $places what stands in for `{{name}}`; in a text from the right each keeps its own
     *     direction
     */
    public function say(string $key, array $places = []): string
    {
        $text = $this->words[$key] ?? throw new RuntimeException("Nothing is written for $key.");
        $fill = [];
        foreach ($places as $name => $value) {
            $fill['{{' . $name . '}}'] = $this->apart($value);
        }

        // At one time: what a value holds is not filled again.
        return strtr($text, $fill);
    }

    /**
     * Words that may be of another script than the text they stand in: kept from turning what is beside them about
     * (Unicode Bidirectional Algorithm, UAX 9, first strong isolates).
     */
    public function apart(string $words): string
    {
        return $this->fromRight() && $words !== '' ? "\u{2068}$words\u{2069}" : $words;
    }

    /**
     * Given names, or other words in a row, as the language joins them.
     *
     * @param  list<string>  $names
     */
    public function names(array $names): string
    {
        return implode(
            match ($this->language) {
                'ar' => '، ',
                'zh' => '、',
                default => ', ',
            },
            $names,
        );
    }

    /** @param  string  $day YYYY-MM-DD */
    public function day(string $day): string
    {
        $format = new IntlDateFormatter($this->language, IntlDateFormatter::LONG, IntlDateFormatter::NONE, 'UTC');

        return (string) $format->format(new DateTimeImmutable("$day 12:00", new DateTimeZone('UTC')));
    }

    public function fromRight(): bool
    {
        return $this->language === 'ar';
    }

    /** @return array<string, string> */
    private static function read(string $language): array
    {
        /** @var array<string, string> */
        return (array) json_decode(
            (string) file_get_contents(resource_path("mails/$language.json")),
            true,
            512,
            JSON_THROW_ON_ERROR,
        );
    }
}
