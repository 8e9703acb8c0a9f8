<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Values\Canonical;

/**
 * Gives out user names: from the name by a pattern, in plain letters, unique among all there ever were, and never rude.
 * The pattern holds `{given}`, `{family}`, `{g}` (first letter), `{f}`; everything else stands as it is. A family
 * name of several words is kept whole: "de la Cruz" is `delacruz`.
 */
final class UserNames
{
    public const DEFAULT_PATTERN = '{given}.{family}';

    private const MAX_STEM = 30;

    /**
     * @param  array<string, true>  $taken every user name of the district, old ones too
     * @param  list<string>  $unfit fragments that must not appear
     */
    public function __construct(
        private array $taken,
        private readonly array $unfit,
        private readonly string $pattern = self::DEFAULT_PATTERN,
    ) {}

    /**
     * @param  string  $given given names
     * @param  string  $family family names
     */
    public function give(string $given, string $family): string
    {
        $words = self::words($family);
        do {
            $stem = $this->stem(self::first($given), implode('', $words));
            // Too long, a compound name loses its last words rather than the end of one.
            array_pop($words);
        } while (strlen($stem) > self::MAX_STEM && count($words) > 0 && !NameReader::isParticle(end($words)));
        $stem = trim(substr($stem, 0, self::MAX_STEM), '.');
        if (strlen($stem) < 2 || $this->rude($stem)) {
            // By the name, not the next in turn: two lists at a time would have each to be looked at again for it.
            $stem = 'reader' . (1000 + (crc32("$given|$family") % 9000));
        }
        $name = $stem;
        for ($n = 2; isset($this->taken[$name]); $n++) {
            $name = $stem . $n;
        }
        $this->taken[$name] = true;

        return $name;
    }

    public function isTaken(string $userName): bool
    {
        return isset($this->taken[self::fold($userName)]);
    }

    /** As typed at sign-in, to the form that is stored. */
    public static function fold(string $typed): string
    {
        return Canonical::of($typed);
    }

    private function stem(string $given, string $family): string
    {
        return (string) preg_replace(
            '/\.{2,}/',
            '.',
            strtr($this->pattern, [
                '{given}' => $given,
                '{family}' => $family,
                '{g}' => substr($given, 0, 1),
                '{f}' => substr($family, 0, 1),
            ]),
        );
    }

    /** The first given name, with the next where the first is hardly one ("Xin Yi"). */
    private static function first(string $given): string
    {
        $words = self::words($given);

        return $words[0] . (count($words) > 1 && strlen($words[0]) <= 3 ? $words[1] : '');
    }

    /** @return non-empty-list<string> */
    private static function words(string $name): array
    {
        return explode(' ', (string) preg_replace('/[^a-z0-9 ]/', '', NameKey::of($name)));
    }

    private function rude(string $stem): bool
    {
        // A fragment inside one name is a coincidence (Dickson); at the start, or across the join, it would be read.
        $plain = str_replace('.', '', $stem);
        foreach ($this->unfit as $fragment) {
            if (
                (str_starts_with($plain, $fragment) && !str_starts_with($stem, $fragment . '.')) ||
                (str_contains($plain, $fragment) && !str_contains($stem, $fragment)) ||
                $stem === $fragment ||
                str_ends_with($stem, '.' . $fragment)
            ) {
                return true;
            }
        }

        return false;
    }
}
