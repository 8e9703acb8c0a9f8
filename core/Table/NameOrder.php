<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;

/** Which way round the names of a column stand, decided for the column as a whole. */
final readonly class NameOrder
{
    /** No single row says more than this many bits, nor the column more than ten times that. */
    private const MOST = 3.0;

    /** Under these odds, to one, a person is asked. */
    public const ASK_UNDER = 8.0;

    /**
     * @param  bool  $familyFirst how names without a comma are read
     * @param  float  $odds to one that this is right; 1 where nothing speaks either way
     * @param  int  $open names without a comma that have more than one word
     */
    private function __construct(public bool $familyFirst, public float $odds, public int $open) {}

    /**
     * @param list<array{string, list<string>, string}> $names of each row: the name, words of its guardians' names, the
     *     local part of its own address
     */
    public static function of(array $names, NameBook $book, string $heading = ''): self
    {
        $key = NameKey::of($heading);
        $bits = match (true) {
            preg_match(
                '/^(last|family|surname|apellidos?|nom|ho|prizvishche|prizvisse) ' .
                    '.*(first|given|forename|nombres?|prenom|ten|imja|ima)/',
                $key,
            ) === 1
                => 10.0,
            preg_match('/^(first|given|forename|nombres?|prenom) .*(last|family|surname|apellidos?|nom)/', $key) === 1
                => -10.0,
            default => 0.0,
        };
        $open = 0;
        // Above 0: family name first. Three witnesses: the words themselves, the guardians' names, the address.
        foreach ($names as [$name, $guardians, $local]) {
            if (str_contains($name, ',') || NameReader::isEastAsian(trim($name))) {
                continue;
            }
            $words = explode(' ', NameKey::of($name));
            $n = count($words);
            if ($n < 2) {
                continue;
            }
            $open++;
            $row = $book->givenRatherThanFamily($words[$n - 1]) - $book->givenRatherThanFamily($words[0]);
            $row +=
                (in_array($words[0], $guardians, true) ? 2.0 : 0.0) -
                (in_array($words[$n - 1], $guardians, true) ? 2.0 : 0.0);
            if ($local !== '') {
                $parts = preg_split('/[._\-]+/', $local) ?: [];
                $row += count($parts) > 1 && $parts[0] === $words[$n - 1] ? 2.0 : 0.0;
                $row -= count($parts) > 1 && $parts[0] === $words[0] ? 2.0 : 0.0;
            }
            $bits += max(-self::MOST, min(self::MOST, $row));
        }
        $bits = max(-10 * self::MOST, min(10 * self::MOST, $bits));

        return new self($bits > 0.0, 2 ** abs($bits), $open);
    }

    /** As a person said. */
    public static function said(bool $familyFirst): self
    {
        return new self($familyFirst, INF, 0);
    }

    public function uncertain(): bool
    {
        return $this->open > 0 && $this->odds < self::ASK_UNDER;
    }
}
