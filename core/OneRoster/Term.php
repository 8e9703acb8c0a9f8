<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** One comparison of a filter. */
final readonly class Term
{
    /**
     * @param  string  $field with a dot into what it holds: `parent.sourcedId`, `roles.role`
     * @param  string  $predicate = != > >= < <= or ~ (contains)
     */
    public function __construct(public string $field, public string $predicate, public string $value) {}

    /**
     * Whether a value of the field is as the term says. Letters are compared without regard to case.
     *
     * @param  list<string>  $values none where the record has none; several where the field is a list
     */
    public function holds(array $values): bool
    {
        // Of records that a list names, one of them is meant.
        if (str_contains($this->field, '.') && ($this->predicate === '=' || $this->predicate === '!=')) {
            $found = in_array(self::fold($this->value), array_map(self::fold(...), $values), true);

            return ($this->predicate === '=') === $found;
        }
        // Of a list of words, = asks for all of it, and ~ for one that contains.
        if ($this->predicate === '=' || $this->predicate === '!=') {
            $wanted = array_map(self::fold(...), explode(',', $this->value));
            $has = array_map(self::fold(...), $values);
            sort($wanted);
            sort($has);
            $same =
                count($values) > 1
                    ? $wanted === $has
                    : $values !== [] && self::fold($values[0]) === self::fold($this->value);

            return ($this->predicate === '=') === $same;
        }
        foreach ($values as $value) {
            $order = strcmp(self::fold($value), self::fold($this->value));
            $fits = match ($this->predicate) {
                '>' => $order > 0,
                '>=' => $order >= 0,
                '<' => $order < 0,
                '<=' => $order <= 0,
                default => str_contains(self::fold($value), self::fold($this->value)),
            };
            if ($fits) {
                return true;
            }
        }

        return false;
    }

    public static function fold(string $text): string
    {
        return mb_strtolower($text);
    }
}
