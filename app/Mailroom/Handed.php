<?php

declare(strict_types=1);

namespace App\Mailroom;

/** What became of a message at the gateway. */
final readonly class Handed
{
    private function __construct(
        public bool $taken,
        public bool $unknown,
        public bool $unreached,
        public bool $forGood,
        public string $said,
    ) {}

    public static function taken(): self
    {
        return new self(true, false, false, false, '');
    }

    /** @param  bool  $forGood whether it is no use to try again */
    public static function refused(string $said, bool $forGood): self
    {
        return new self(false, false, false, $forGood, $said);
    }

    /** The connection was lost after all of it had been sent, before the answer. */
    public static function unknown(): self
    {
        return new self(false, true, false, false, '');
    }

    /** The gateway does not answer, or was lost before all of it had been sent. */
    public static function unreached(): self
    {
        return new self(false, false, true, false, '');
    }
}
