<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use InvalidArgumentException;

/**
 * A stream of bytes from a secret key and a label: HMAC-SHA-256 over label and counter (as the expansion step of RFC
 * 5869). Whoever lacks the key cannot foretell it; whoever has it gets the same stream again, so a plan that draws
 * codes is the same plan when it is made again.
 */
final class KeyedStream implements Randomness
{
    private string $buffer = '';

    private int $counter = 0;

    public function __construct(private readonly string $key, private readonly string $label)
    {
        if (strlen($key) < 16) {
            throw new InvalidArgumentException('The key of a stream has at least 16 bytes.');
        }
    }

    public function bytes(int $length): string
    {
        while (strlen($this->buffer) < $length) {
            $this->buffer .= hash_hmac('sha256', $this->label . pack('J', $this->counter++), $this->key, true);
        }
        $bytes = substr($this->buffer, 0, $length);
        $this->buffer = substr($this->buffer, $length);

        return $bytes;
    }

    public function below(int $bound): int
    {
        if ($bound < 1 || $bound > 1 << 31) {
            throw new InvalidArgumentException('The bound lies between 1 and 2^31.');
        }
        // Values above the last whole multiple are drawn again: a plain remainder would favour small numbers.
        $limit = intdiv(1 << 32, $bound) * $bound;
        do {
            /** @var array{1: int} $parts */
            $parts = unpack('N', $this->bytes(4));
        } while ($parts[1] >= $limit);

        return $parts[1] % $bound;
    }
}
