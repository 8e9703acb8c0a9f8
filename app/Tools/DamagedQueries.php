<?php

declare(strict_types=1);

namespace App\Tools;

use Random\Engine\Mt19937;
use Random\Randomizer;
use stdClass;

/** What somebody in a hurry types who wants one person: parts, another order, no accents, slips of the keys. */
final class DamagedQueries
{
    private Randomizer $random;

    public function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    /**
     * @param  stdClass  $person given_name, family_name, number, email
     * @return array{string, string} what is typed, and its kind
     */
    public function of(stdClass $person): array
    {
        $given = mb_strtolower((string) $person->given_name);
        $family = mb_strtolower((string) $person->family_name);
        $kinds = ['whole', 'turned', 'slip', 'slips', 'beginnings', 'initial', 'plain', 'comma'];
        if ($person->number !== null) {
            // Not with a slip: where numbers run on, that is somebody else's.
            $kinds[] = 'number';
        }
        $kind = $kinds[$this->random->getInt(0, count($kinds) - 1)];

        return [
            match ($kind) {
                'whole' => "$given $family",
                'turned' => "$family $given",
                'slip' => $this->random->getInt(0, 1) === 0
                    ? $this->slip($given) . " $family"
                    : "$given " . $this->slip($family),
                'slips' => $this->slip($given) . ' ' . $this->slip($family),
                'beginnings' => mb_substr($given, 0, 4) . ' ' . mb_substr($family, 0, max(4, mb_strlen($family) - 2)),
                'initial' => mb_substr($given, 0, 1) . " $family",
                'plain' => (string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', "$given $family"),
                'comma' => mb_strtoupper("$family, $given"),
                default => (string) $person->number,
            },
            $kind,
        ];
    }

    /** One letter too many, too few, other, or two that changed places; never the first, which is rarely missed. */
    private function slip(string $word): string
    {
        $letters = mb_str_split($word);
        if (count($letters) < 4) {
            return $word;
        }
        $at = $this->random->getInt(1, count($letters) - 2);
        $other = chr($this->random->getInt(97, 122));
        match ($this->random->getInt(0, 3)) {
            0 => array_splice($letters, $at, 1),
            1 => array_splice($letters, $at, 0, [$other]),
            2 => ($letters[$at] = $other),
            default => ([$letters[$at], $letters[$at + 1]] = [$letters[$at + 1], $letters[$at]]),
        };

        return implode('', $letters);
    }
}
