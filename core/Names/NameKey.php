<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

use RuntimeException;
use Transliterator;

/**
 * A name reduced to what stays the same however it is typed: plain lower-case letters and digits, words apart by one
 * space.
 */
final class NameKey
{
    private const MOST_KNOWN = 5000;

    private static ?Transliterator $plain = null;

    /** @var array<string, string> what was reduced before */
    private static array $known = [];

    /**
     * A plain name with what differs between rules of romanising it taken out: "shevchuk" and "sevcuk" (both Шевчук),
     * "mueller" and "muller", "yuliia" and "ulia" come out alike. For holding names against each other, never for
     * showing.
     */
    public static function loose(string $key): string
    {
        $key = strtr(str_replace(' ', '', $key), [
            'sch' => 's',
            'sh' => 's',
            'ch' => 'c',
            'zh' => 'z',
            'kh' => 'h',
            'ph' => 'f',
            'ck' => 'k',
            'ts' => 'c',
            'ae' => 'a',
            'oe' => 'o',
            'ue' => 'u',
            'yu' => 'u',
            'ya' => 'a',
            'ye' => 'e',
            'ju' => 'u',
            'ja' => 'a',
            'je' => 'e',
        ]);

        return (string) preg_replace('/(.)\1+/', '$1', strtr($key, ['y' => 'i', 'j' => 'i']));
    }

    /**
     * "Żuławski, O'Neil" gives "zulawski oneil"; names in other scripts are romanised (ICU's Any-Latin, ISO 9 style
     * rules).
     */
    public static function of(string $name): string
    {
        // Most names and cells are plain words: nothing in them has to be looked at again.
        if (preg_match('/^[A-Za-z0-9]+(?: [A-Za-z0-9]+)*$/D', $name) === 1) {
            return strtolower($name);
        }
        // The same cells are looked at by each who asks what a list is, where it begins and who is in it.
        if (count(self::$known) >= self::MOST_KNOWN) {
            self::$known = [];
        }

        return self::$known[$name] ??= self::plain($name);
    }

    private static function plain(string $name): string
    {
        $name = mb_scrub($name);
        if (preg_match('/[^\x00-\x7F]/', $name) === 1) {
            self::$plain ??=
                Transliterator::create('Any-Latin; Latin-ASCII') ??
                throw new RuntimeException('The intl extension has no Any-Latin transliterator.');
            $name = (string) self::$plain->transliterate($name);
        }
        $name = str_replace(["'", '’', '`', 'ʹ', 'ʺ'], '', strtolower($name));

        return trim((string) preg_replace('/[^a-z0-9]+/', ' ', $name));
    }
}
