<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use InvalidArgumentException;

/**
 * A large set of words of which only hashes are kept: the first five bytes of the SHA-256 of each, in order, one after
 * another. Asked for a word that is not in it, it says so but for one in 2^40 / n.
 */
final readonly class HashedSet
{
    private const WIDTH = 5;

    /** @param  string  $bytes as {@see of()} writes them */
    public function __construct(private string $bytes)
    {
        if (strlen($bytes) % self::WIDTH !== 0) {
            throw new InvalidArgumentException('That is no set of hashes.');
        }
    }

    /** @param  iterable<string>  $words */
    public static function of(iterable $words): self
    {
        $keys = [];
        foreach ($words as $word) {
            $keys[self::key($word)] = true;
        }
        $keys = array_map(strval(...), array_keys($keys));
        sort($keys, SORT_STRING);

        return new self(implode('', $keys));
    }

    public function bytes(): string
    {
        return $this->bytes;
    }

    public function has(string $word): bool
    {
        $key = self::key($word);
        $low = 0;
        $high = intdiv(strlen($this->bytes), self::WIDTH);
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            $order = strcmp($key, substr($this->bytes, $middle * self::WIDTH, self::WIDTH));
            if ($order === 0) {
                return true;
            }
            if ($order < 0) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }

        return false;
    }

    private static function key(string $word): string
    {
        return substr(hash('sha256', $word, true), 0, self::WIDTH);
    }
}
