<?php

declare(strict_types=1);

namespace App\Platform\Print;

use TCPDF_FONTS;

/** The faces that are printed with, by the names the library gives the files that `vantrel:fonts` converts. */
enum Face: string
{
    case Serif = 'sourceserif4semib';
    case Sans = 'atkinsonhyperlegiblenext';
    case Bold = 'atkinsonhyperlegiblenextb';
    case Mono = 'atkinsonhyperlegiblemonosemib';
    case Wide = 'dejavusans';
    case WideBold = 'dejavusansb';
    case Han = 'droidsansfallbackfull';

    /** Where Debian puts those that are not ours (fonts-dejavu-core and fonts-droid-fallback). */
    private const DEBIAN = [
        '/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf',
        '/usr/share/fonts/truetype/dejavu/DejaVuSans-Bold.ttf',
        '/usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf',
    ];

    /** @return list<string> files to convert */
    public static function files(): array
    {
        return [...glob(resource_path('fonts/*.ttf')) ?: [], ...self::DEBIAN];
    }

    /** Converts a file for the library. */
    public static function convert(string $file, string $to): bool
    {
        // The converter warns about tables it does not use.
        return is_file($file) && @TCPDF_FONTS::addTTFfont($file, 'TrueTypeUnicode', '', 32, $to) !== false;
    }

    /** For running text in a language, or for its headings. */
    public static function text(string $language, bool $bold = false): self
    {
        return match ($language) {
            'zh' => self::Han,
            'ar', 'uk', 'vi' => $bold ? self::WideBold : self::Wide,
            default => $bold ? self::Bold : self::Sans,
        };
    }

    public static function heading(string $language): self
    {
        return in_array($language, ['ar', 'uk', 'vi', 'zh'], true) ? self::text($language, true) : self::Serif;
    }

    /** @return list<self> what has the signs that this one lacks */
    public function instead(): array
    {
        return match ($this) {
            self::Serif, self::Bold => [self::WideBold, self::Han],
            self::WideBold => [self::Han],
            self::Sans, self::Mono => [self::Wide, self::Han],
            self::Wide => [self::Han],
            self::Han => [self::Sans, self::Wide],
        };
    }
}
