<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** Draws join codes that were never used before, long enough for the number that are live. */
final class CodeBook
{
    /**
     * @param array<string, true> $used symbols of every code there ever was: an old code must not open a new section
     */
    public function __construct(
        private readonly Randomness $random,
        private array $used,
        private int $liveCodes,
        private readonly int $triesPerDay,
    ) {}

    public function draw(): CodeSymbols
    {
        $this->liveCodes++;
        $length = (new CodeChances($this->liveCodes, $this->triesPerDay))->payloadLength();
        do {
            $code = CodeSymbols::draw($this->random, $length);
        } while (isset($this->used[$code->symbols]));
        $this->used[$code->symbols] = true;

        return $code;
    }
}
