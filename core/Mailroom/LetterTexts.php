<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** What a letter says, by language, as it is typed: a language in which nothing stands is none. */
final class LetterTexts
{
    /** Characters of the name words are kept by. */
    public const MOST_NAME = 60;

    /** Kept ones of one person, or of the school: more names than these nobody reads. */
    public const MOST_KEPT = 50;

    /**
     * @param  array<string, string|null>  $subjects by tag, in other languages
     * @param  array<string, string|null>  $bodies the same
     * @return array<string, array{subject: string, body: string}> by tag; English is always among them
     */
    public static function of(string $subject, string $body, array $subjects, array $bodies): array
    {
        $texts = ['en' => ['subject' => $subject, 'body' => $body]];
        foreach ($subjects + $bodies as $language => $_) {
            $one = trim((string) ($subjects[$language] ?? ''));
            $all = trim((string) ($bodies[$language] ?? ''));
            if ($language !== 'en' && ($one !== '' || $all !== '')) {
                $texts[(string) $language] = ['subject' => $one, 'body' => $all];
            }
        }

        return $texts;
    }
}
