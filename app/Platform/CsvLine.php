<?php

declare(strict_types=1);

namespace App\Platform;

/**
 * A record of RFC 4180 with every field in quotation marks: where a program takes another sign for the separator, what
 * stands in a field is still one field, and begins no formula.
 */
final class CsvLine
{
    /** @param  list<string|int|null>  $fields */
    public static function of(array $fields): string
    {
        return implode(
            ',',
            array_map(
                fn(string|int|null $field): string => '"' . str_replace('"', '""', (string) $field) . '"',
                $fields,
            ),
        ) . "\r\n";
    }
}
