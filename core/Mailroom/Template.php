<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;

/** Words with places that are filled for each receiver: `{{name}}`. */
final class Template
{
    public const FIELDS = ['name', 'children', 'school', 'section'];

    /**
     * @param  string  $field of the form it is typed in
     *
     * @throws Refusal naming a place that nothing fills
     */
    public static function mustKnow(string $text, string $field): void
    {
        preg_match_all('/\{\{\s*([^{}]*?)\s*\}\}/u', $text, $m);
        foreach ($m[1] as $name) {
            if (!in_array($name, self::FIELDS, true)) {
                throw new Refusal(
                    "Nothing fills {{{$name}}}. There are: {{" . implode('}}, {{', self::FIELDS) . '}}.',
                    $field,
                );
            }
        }
    }

    /** @param  array<string, string>  $values by field; what a value holds is not filled again */
    public static function fill(string $text, array $values): string
    {
        return (string) preg_replace_callback(
            '/\{\{\s*(\w+)\s*\}\}/u',
            fn(array $m): string => $values[$m[1]] ?? $m[0],
            $text,
        );
    }
}
