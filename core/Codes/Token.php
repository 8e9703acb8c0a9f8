<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** A bearer token of 128 bits: on a badge, in a link of an invitation. Only its SHA-256 is kept. */
final readonly class Token
{
    private function __construct(public string $plain) {}

    public static function draw(Randomness $random): self
    {
        return new self(rtrim(strtr(base64_encode($random->bytes(16)), '+/', '-_'), '='));
    }

    public function hash(): string
    {
        return self::hashOf($this->plain);
    }

    /** Hex SHA-256 of a token as presented. Looking up by this hash leaks no timing about the token itself. */
    public static function hashOf(string $presented): string
    {
        return hash('sha256', $presented);
    }
}
