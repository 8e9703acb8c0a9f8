<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What a school has written itself for one kind of letter in one language. */
final readonly class LetterWording extends Record
{
    public static function entity(): Entity
    {
        return Entity::LetterWording;
    }

    /** @return array<string, string> by text */
    public function texts(): array
    {
        $texts = [];
        foreach ((array) json_decode($this->text('texts'), true) as $name => $text) {
            if (is_string($text)) {
                $texts[(string) $name] = $text;
            }
        }

        return $texts;
    }
}
