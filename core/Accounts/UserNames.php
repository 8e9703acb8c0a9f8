<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Values\Canonical;

/**
 * Gives out user names: from the name by a pattern, in plain letters, unique among all there ever were, and never rude.
 * The pattern holds `{given}`, `{family}`, `{g}` (first letter), `{f}`; everything else stands as it is.
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
        $g = self::letters($given);
        $f = self::letters($family);
        $stem = strtr($this->pattern, [
            '{given}' => $g,
            '{family}' => $f,
            '{g}' => substr($g, 0, 1),
            '{f}' => substr($f, 0, 1),
        ]);
        $stem = trim(substr((string) preg_replace('/\.{2,}/', '.', $stem), 0, self::MAX_STEM), '.');
        if (strlen($stem) < 2 || $this->rude($stem)) {
            $stem = 'reader';
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

    private static function letters(string $name): string
    {
        $words = explode(' ', NameKey::of($name));

        return (string) preg_replace(
            '/[^a-z0-9]/',
            '',
            $words[0] . (count($words) > 1 && strlen($words[0]) <= 3 ? $words[1] : ''),
        );
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
