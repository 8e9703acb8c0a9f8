<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use DateTimeImmutable;
use DateTimeZone;

/**
 * Names new records before they exist, so that a plan can refer to them and stays the same when it is made again.
 * The ids are well-formed ULIDs: the time part is the seed's, the rest is a hash of the seed and the parts given.
 */
final readonly class Ids
{
    private const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

    /** @param  string  $seed a ULID of 26 characters, one for each list, merge or other action */
    public function __construct(private string $seed) {}

    /**
     * When the seed was made, as a UTC instant of whole seconds. A plan that says "now" takes it from here, so that it
     * is the same plan when it is applied a minute after it was looked at.
     */
    public function instant(): string
    {
        $ms = 0;
        foreach (str_split(substr($this->seed, 0, 10)) as $symbol) {
            $ms = $ms * 32 + (int) strpos(self::ALPHABET, $symbol);
        }

        return gmdate('Y-m-d H:i:s', intdiv($ms, 1000));
    }

    /**
     * Whether a plan with this seed may still be applied: what was looked at longer ago than a day is looked at again.
     * A few minutes into the time to come are let pass: of two servers, one is always a little behind.
     *
     * @param  string  $now UTC instant
     */
    public function isFresh(string $now): bool
    {
        $at = new DateTimeImmutable($now, new DateTimeZone('UTC'));

        return $this->instant() >= $at->modify('-1 day')->format('Y-m-d H:i:s') &&
            $this->instant() <= $at->modify('+5 minutes')->format('Y-m-d H:i:s');
    }

    public function for(string ...$parts): string
    {
        $hash = hash('sha256', $this->seed . '|' . implode('|', $parts), true);
        $id = substr($this->seed, 0, 10);
        for ($i = 0; $i < 16; $i++) {
            $id .= self::ALPHABET[ord($hash[$i]) & 31];
        }

        return $id;
    }
}
