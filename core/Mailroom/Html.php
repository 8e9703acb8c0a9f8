<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** The same words as HTML, for mail that is written as text: paragraphs, lists and links, and nothing that fetches. */
final class Html
{
    /** @param  string  $language a tag */
    public static function of(string $text, string $language): string
    {
        $blocks = array_map(self::block(...), preg_split('/\n\s*\n/', trim(str_replace("\r", '', $text))) ?: []);

        return self::page(implode("\n", $blocks), $language);
    }

    /**
     * @param  string  $inner HTML
     * @param  string  $language a tag
     */
    public static function page(string $inner, string $language): string
    {
        $direction = $language === 'ar' ? 'rtl' : 'ltr';

        return "<!doctype html>\n<html lang=\"$language\" dir=\"$direction\">\n<head><meta charset=\"utf-8\">" .
            '<meta name="viewport" content="width=device-width"></head>' .
            "\n<body style=\"margin:0;padding:24px 16px;max-width:34em;font:16px/1.5 Georgia,serif;color:#1d2b2a;" .
            "background:#fff;overflow-wrap:anywhere\">\n" .
            $inner .
            "\n</body>\n</html>\n";
    }

    private static function block(string $block): string
    {
        $lines = explode("\n", trim($block));
        if (array_filter($lines, fn(string $l): bool => !str_starts_with($l, '- ')) === []) {
            return '<ul>' . implode('', array_map(fn(string $l): string => self::item($l), $lines)) . '</ul>';
        }

        return '<p>' . implode('<br>', array_map(self::line(...), $lines)) . '</p>';
    }

    private static function item(string $line): string
    {
        return '<li>' . self::line(substr($line, 2)) . '</li>';
    }

    /** Words and the links in them, as HTML. */
    public static function line(string $line): string
    {
        $parts = preg_split('~(https?://[^\s<>"]+[^\s<>".,;:!?)])~', $line, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [];
        foreach ($parts as $i => $part) {
            $plain = htmlspecialchars($part, ENT_QUOTES | ENT_SUBSTITUTE | ENT_HTML5);
            $parts[$i] = $i % 2 === 1 ? "<a href=\"$plain\" style=\"color:#1d2b2a\">$plain</a>" : $plain;
        }

        return implode('', $parts);
    }
}
