<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

/** Several of something in one field, typed or pasted. */
final class Pasted
{
    /**
     * @return list<string> pieces apart by lines, commas, semicolons or tabs, but for those in the quotation marks of a
     *     name, as mail programs write them: `"Moss, Ada" <ada@shoremail.example>`
     */
    public static function pieces(string $text): array
    {
        preg_match_all('/(?:"[^"\r\n]*"|[^\r\n,;\t])+/', $text, $m);

        return array_values(array_filter(array_map(trim(...), $m[0]), fn(string $piece): bool => $piece !== ''));
    }
}
