<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;

/** Counts wrong tries against the limits of {@see Limit}, each for somebody: an account, an address, a code. */
final class TryCounter
{
    /**
     * The counts of all are read at once: this is the way of every child who types a code.
     *
     * @param  array{0: Limit, 1: string}  ...$limits a limit, and whom it is for
     *
     * @throws TooManyRequestsHttpException with the seconds to wait
     */
    public function guard(array ...$limits): void
    {
        $keys = array_map($this->key(...), $limits);
        $counts = array_values(Cache::many(array_map(RateLimiter::cleanRateLimiterKey(...), $keys)));
        foreach ($limits as $i => [$limit]) {
            // The second look forgets counts whose time is over.
            if (
                (int) ($counts[$i] ?? 0) >= self::most($limit) &&
                RateLimiter::tooManyAttempts($keys[$i], self::most($limit))
            ) {
                throw new TooManyRequestsHttpException(RateLimiter::availableIn($keys[$i]), 'Too many tries.');
            }
        }
    }

    /**
     * The same as {@see guard}, to be asked rather than thrown: where being turned away would tell something.
     *
     * @param  array{0: Limit, 1: string}  $limit
     */
    public function isOver(array $limit): bool
    {
        return RateLimiter::tooManyAttempts($this->key($limit), self::most($limit[0]));
    }

    /** @param  array{0: Limit, 1: string}  ...$limits */
    public function count(array ...$limits): void
    {
        foreach ($limits as $limit) {
            RateLimiter::hit($this->key($limit), $limit[0]->seconds());
        }
    }

    public function clear(Limit $limit, string $whom): void
    {
        RateLimiter::clear($this->key([$limit, $whom]));
    }

    /** Wrong codes that one person can try in a day, signed in and not: the length of new codes follows from it. */
    public static function codesADay(): int
    {
        return self::most(Limit::CodeAddress) + self::most(Limit::CodeAccount);
    }

    private static function most(Limit $limit): int
    {
        $own = config('vantrel.limits')[$limit->value] ?? null;

        // An empty line in the settings is none: no tries at all would let nobody in.
        return is_numeric($own) && (int) $own > 0 ? (int) $own : $limit->most();
    }

    /** @param  array{0: Limit, 1: string}  $limit */
    private function key(array $limit): string
    {
        return $limit[0]->value . '|' . $limit[1];
    }
}
