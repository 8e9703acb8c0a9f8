<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use InvalidArgumentException;

/**
 * How long join codes must be, and what chances that leaves. A code whose check symbol is wrong is never looked up and
 * is not counted as a try, so the guesser's space is that of the payloads.
 */
final readonly class CodeChances
{
    /** No more than one hit in this many days of guessing at the full rate. */
    public const DAYS_TO_A_HIT = 10_000;

    /**
     * @param  int  $liveCodes codes that open a section now
     * @param  int  $triesPerDay well-formed wrong tries that one address has a day
     */
    public function __construct(public int $liveCodes, public int $triesPerDay)
    {
        if ($liveCodes < 0 || $triesPerDay < 1) {
            throw new InvalidArgumentException('Live codes are 0 or more and tries 1 or more.');
        }
    }

    /**
     * The least payload length n with liveCodes * triesPerDay / 23^n < 1 / 10,000.
     *
     * @throws InvalidArgumentException beyond what 9 symbols can carry
     */
    public function payloadLength(): int
    {
        for ($n = CodeSymbols::MIN_PAYLOAD; $n <= CodeSymbols::MAX_PAYLOAD; $n++) {
            if ($this->liveCodes * $this->triesPerDay * self::DAYS_TO_A_HIT < Alphabet::SIZE ** $n) {
                return $n;
            }
        }
        throw new InvalidArgumentException(
            'Too many live codes for 9 symbols at this rate of tries: close old codes, or lower the rate.',
        );
    }

    /** The chance that one address, guessing all day, opens any section: a number from 0 to 1. */
    public function guessPerDay(int $payloadLength): float
    {
        return min(1.0, ($this->liveCodes * $this->triesPerDay) / Alphabet::SIZE ** $payloadLength);
    }

    /**
     * The chance that drawing this many codes at random meets one twice (birthday bound), before the redraw that
     * prevents it.
     */
    public function collision(int $payloadLength): float
    {
        return -expm1((-$this->liveCodes * max(0, $this->liveCodes - 1)) / 2 / Alphabet::SIZE ** $payloadLength);
    }
}
