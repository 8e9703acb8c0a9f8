<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use InvalidArgumentException;

/**
 * A join code: a payload of 6 to 9 symbols and one check symbol.
 *
 * The weighted sum of all symbols, weights 1 (check symbol) to n, equals the number of symbols modulo 23. The weights
 * are distinct and none is 0 modulo 23, so a single wrong symbol changes the sum by w(a-b), which is not 0, and two
 * symbols that changed places change it by (v-w)(a-b), which is not 0 either: both are always found. (ISO/IEC 7064
 * treats the same family of pure systems.)
 */
final readonly class CodeSymbols
{
    public const MIN_PAYLOAD = 6;

    public const MAX_PAYLOAD = 9;

    /** @param  string  $symbols payload and check symbol, without dash */
    private function __construct(public string $symbols) {}

    /** @throws InvalidArgumentException if the payload is not 6 to 9 of our symbols */
    public static function fromPayload(string $payload): self
    {
        $length = strlen($payload);
        if ($length < self::MIN_PAYLOAD || $length > self::MAX_PAYLOAD) {
            throw new InvalidArgumentException('A payload has 6 to 9 symbols.');
        }

        return new self($payload . Alphabet::symbol(self::remainder(self::weigh($payload, 2), $length + 1)));
    }

    public static function draw(Randomness $random, int $payloadLength): self
    {
        $payload = '';
        for ($i = 0; $i < $payloadLength; $i++) {
            $payload .= Alphabet::symbol($random->below(Alphabet::SIZE));
        }

        return self::fromPayload($payload);
    }

    /**
     * Reads a code as typed: any case, with spaces or dashes of any kind.
     *
     * @throws MalformedCode saying which kind of mistake it is
     */
    public static function parse(string $typed): self
    {
        $symbols = mb_strtoupper((string) preg_replace('/[\s\p{Pd}_.]+/u', '', mb_scrub($typed)));
        if ($symbols === '') {
            throw new MalformedCode(CodeMistake::Empty);
        }
        foreach (mb_str_split($symbols) as $symbol) {
            if (Alphabet::index($symbol) === null) {
                throw new MalformedCode(CodeMistake::ForeignSymbol, $symbol);
            }
        }
        if (strlen($symbols) <= self::MIN_PAYLOAD) {
            throw new MalformedCode(CodeMistake::TooShort);
        }
        if (strlen($symbols) > self::MAX_PAYLOAD + 1) {
            throw new MalformedCode(CodeMistake::TooLong);
        }
        if (self::weigh($symbols, 1) % Alphabet::SIZE !== strlen($symbols)) {
            throw new MalformedCode(CodeMistake::Check);
        }

        return new self($symbols);
    }

    /** As written on a wall: `KDM-4X7R`, `KDM4-X7RT`, `KDM-4X7-RTB`, `KDM-4X7R-TBC`. */
    public function written(): string
    {
        $cut = match (strlen($this->symbols)) {
            7 => [3, 4],
            8 => [4, 4],
            9 => [3, 3, 3],
            default => [3, 4, 3],
        };
        $groups = [];
        $at = 0;
        foreach ($cut as $length) {
            $groups[] = substr($this->symbols, $at, $length);
            $at += $length;
        }

        return implode('-', $groups);
    }

    /** Weighted sum; the last symbol has weight $first, the one before it $first + 1, and so on. */
    private static function weigh(string $symbols, int $first): int
    {
        $sum = 0;
        $length = strlen($symbols);
        for ($i = 0; $i < $length; $i++) {
            $index =
                Alphabet::index($symbols[$i]) ??
                throw new InvalidArgumentException("“{$symbols[$i]}” is not a symbol of join codes.");
            $sum += $index * ($first + $length - 1 - $i);
        }

        return $sum;
    }

    private static function remainder(int $sum, int $length): int
    {
        return ((($length - $sum) % Alphabet::SIZE) + Alphabet::SIZE) % Alphabet::SIZE;
    }
}
