<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;

/** Words with places that are filled for each receiver: `{{name}}`. */
final class Template
{
    /**
     * What there is to fill in: of whom one is a guardian only for guardians, the section only where one is written to.
     *
     * @return list<string>
     */
    public static function fields(Readers $readers, bool $ofSection): array
    {
        return [
            'name',
            'school',
            ...$readers === Readers::Guardians ? ['children'] : [],
            ...$ofSection ? ['section'] : [],
        ];
    }

    /**
     * @param  list<string>  $fields there are
     * @param  string  $at field of the form it is typed in
     *
     * @throws Refusal naming a place that nothing fills
     */
    public static function mustFill(string $text, array $fields, string $at): void
    {
        preg_match_all('/\{\{\s*([^{}]*?)\s*\}\}/u', $text, $m);
        foreach ($m[1] as $name) {
            if (!in_array($name, $fields, true)) {
                $there = implode(', ', array_map(fn(string $f): string => '{{' . $f . '}}', $fields));
                throw new Refusal("Nothing fills {{{$name}}} here. There are: $there.", $at);
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
