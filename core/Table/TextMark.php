<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * The apostrophe that says "this is text", where a list is written as text and a program that opens it would take a
 * cell for a formula: at its beginning, and behind a sign that another program takes for the end of a cell. It is taken
 * off when the list comes back.
 */
final class TextMark
{
    /** What begins a formula; some programs read the wide forms alike. */
    private const RUNS = '[\s\x00-\x1F\p{Cf}]*[=+\-@|%＝＋－＠﹢﹣﹦﹫−]';

    /** Signs that separate cells where somebody's program is set to them; white space at the beginning ends nothing. */
    private const ENDS = '[;,|]|(?<=\S)[\t\r\n]';

    public static function on(string $text): string
    {
        return (string) preg_replace('/(^|' . self::ENDS . ')(?=' . self::RUNS . ')/u', "$1'", $text);
    }

    public static function off(string $text): string
    {
        return (string) preg_replace('/(^|' . self::ENDS . ")'(?=" . self::RUNS . ')/u', '$1', $text);
    }
}
