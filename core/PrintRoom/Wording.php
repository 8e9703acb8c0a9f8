<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/**
 * The texts of one kind of letter in one language: ours, and over them what a school has written itself. What stands in
 * braces is filled in for each student.
 */
final readonly class Wording
{
    /** The school's own paragraph; empty where it adds none. */
    public const NOTE = 'note';

    /** Of one text, in signs: what is longer is no letter of one page. */
    public const LONGEST = 700;

    /** Without these nobody finds the way in. */
    private const NEEDED = ['address', 'code'];

    /**
     * @param  array<string, string>  $standard by text
     * @param  array<string, string>  $own by text, of those the school has written
     */
    private function __construct(public LetterKind $kind, public array $standard, public array $own) {}

    /**
     * @param  array<string, string>  $standard
     * @param  array<string, string>  $own
     */
    public static function of(LetterKind $kind, array $standard, array $own = []): self
    {
        return new self($kind, $standard, array_intersect_key($own, $standard));
    }

    /**
     * With other texts of the school: one that is empty, or ours again, is the school's no more.
     *
     * @param  array<string, string>  $texts by text
     *
     * @throws Refusal naming the text, where it would leave out the way in, or asks for what is not known
     */
    public function with(array $texts): self
    {
        $own = $this->own;
        foreach ($texts as $name => $text) {
            if (!isset($this->standard[$name])) {
                throw new Refusal("This letter has no text “{$name}”.", 'texts');
            }
            $text = trim((string) preg_replace('/[^\S\n]+/u', ' ', mb_scrub($text)));
            if ($text === '' || $text === $this->standard[$name]) {
                unset($own[$name]);

                continue;
            }
            $this->check($name, $text);
            $own[$name] = $text;
        }

        return new self($this->kind, $this->standard, $own);
    }

    /** @param  array<string, string>  $values by field */
    public function text(string $name, array $values): string
    {
        $text = $this->own[$name] ?? ($this->standard[$name] ?? '');

        return strtr($text, array_combine(array_map(fn(string $f): string => "{{$f}}", array_keys($values)), $values));
    }

    /** @return list<string> the fields in a text */
    public static function fieldsOf(string $text): array
    {
        preg_match_all('/\{(\w+)\}/', $text, $found);

        return array_values(array_unique($found[1]));
    }

    private function check(string $name, string $text): void
    {
        $length = mb_strlen($text);
        if ($length > self::LONGEST) {
            throw new Refusal("That is $length letters long; " . self::LONGEST . ' fit.', "texts.$name");
        }
        $fields = self::fieldsOf($text);
        foreach (array_diff($fields, $this->kind->fields()) as $field) {
            throw new Refusal(
                "Nothing is known to fill in for {{$field}}. These can stand in braces: " .
                    implode(', ', $this->kind->fields()) .
                    '.',
                "texts.$name",
            );
        }
        foreach (array_diff(array_intersect(self::fieldsOf($this->standard[$name]), self::NEEDED), $fields) as $field) {
            throw new Refusal("Leave {{$field}} in: without it nobody finds the way in.", "texts.$name");
        }
    }
}
