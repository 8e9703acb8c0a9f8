<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;

/**
 * Counts tries against the limits of {@see Limit}, each for somebody: an account, an address, a code. A try is taken
 * before it is looked at, and given back where it was right: of many at once, no more are looked at than are borne.
 */
final class TryCounter
{
    /**
     * Takes one try of each limit, or none where one of them has none left.
     *
     * @param  array{0: Limit, 1: string}  ...$limits a limit, and whom it is for
     *
     * @throws TooManyRequestsHttpException with the seconds to wait
     */
    public function take(array ...$limits): void
    {
        $taken = [];
        foreach ($limits as $limit) {
            $taken[] = $limit;
            if ($this->count($limit) > self::most($limit[0])) {
                $this->giveBack(...$taken);
                $this->refuse($limit);
            }
        }
    }

    /**
     * The same, to be asked rather than thrown: where being turned away would tell something.
     *
     * @param  array{0: Limit, 1: string}  $limit
     */
    public function takes(array $limit): bool
    {
        try {
            $this->take($limit);
        } catch (TooManyRequestsHttpException) {
            return false;
        }

        return true;
    }

    /** @param  array{0: Limit, 1: string}  ...$limits a try that was right is none */
    public function giveBack(array ...$limits): void
    {
        foreach ($limits as $limit) {
            DB::update('UPDATE tries SET n = n - 1 WHERE id = ? AND n > 0', [self::key($limit)]);
        }
    }

    /**
     * A try was right: whoever made it begins anew, and what it took besides is given back.
     *
     * @param  array{0: Limit, 1: string}  $own
     * @param  list<array{0: Limit, 1: string}>  $besides
     */
    public function right(array $own, array $besides): void
    {
        $keys = array_map(self::key(...), [$own, ...$besides]);
        $places = implode(',', array_fill(0, count($keys), '?'));
        // In the order of the index, so that two at a time wait for each other.
        DB::update("UPDATE tries SET n = IF(id = ?, 0, n - 1) WHERE id IN ($places) AND n > 0 ORDER BY id", [
            $keys[0],
            ...$keys,
        ]);
    }

    /**
     * Turns away whoever has none left, and takes none: for the way that a whole school goes within minutes, where a
     * try is only written once it was wrong ({@see count()}). Of many at once some more are looked at, as many as the
     * server works on at a time.
     *
     * @param  array{0: Limit, 1: string}  $limit
     * @param  int|null  $counted how many there have been, where somebody has read it already
     *
     * @throws TooManyRequestsHttpException with the seconds to wait
     */
    public function guard(array $limit, ?int $counted = null): void
    {
        if (($counted ?? $this->counts($limit)[0]) >= self::most($limit[0])) {
            $this->refuse($limit);
        }
    }

    /**
     * Counts one, or several at once, whatever is borne.
     *
     * @param  array{0: Limit, 1: string}  $limit
     * @return int how many there have been, with this one
     */
    public function count(array $limit, int $n = 1): int
    {
        $now = now()->getTimestamp();
        DB::statement(
            'INSERT INTO tries (id, until, n) VALUES (?, ?, LAST_INSERT_ID(?)) ON DUPLICATE KEY UPDATE ' .
                'n = LAST_INSERT_ID(IF(until <= ?, ?, n + ?)), until = IF(until <= ?, VALUES(until), until)',
            [self::key($limit), $now + $limit[0]->seconds(), $n, $now, $n, $n, $now],
        );

        return (int) DB::getPdo()->lastInsertId();
    }

    /**
     * How many there have been of each, in one look.
     *
     * @param  array{0: Limit, 1: string}  ...$limits
     * @return list<int>
     */
    public function counts(array ...$limits): array
    {
        $keys = array_map(self::key(...), array_values($limits));
        $places = implode(',', array_fill(0, count($keys), '?'));
        $n = array_fill_keys($keys, 0);
        $now = now()->getTimestamp();
        foreach (DB::select("SELECT id, n FROM tries WHERE id IN ($places) AND until > ?", [...$keys, $now]) as $row) {
            $n[$row->id] = (int) $row->n;
        }

        return array_map(fn(string $key): int => $n[$key], $keys);
    }

    /**
     * How many there have been of one, as a column of another statement; null for none.
     *
     * @param  array{0: Limit, 1: string}  $limit
     */
    public static function column(array $limit): Builder
    {
        return DB::table('tries')
            ->where('id', self::key($limit))
            ->where('until', '>', now()->getTimestamp())
            ->select('n');
    }

    public function clear(Limit $limit, string $whom): void
    {
        DB::delete('DELETE FROM tries WHERE id = ?', [self::key([$limit, $whom])]);
    }

    /**
     * Wrong codes that one person can try in a day, signed in and not, before somebody looks at whoever comes by one:
     * the length of new codes follows from it.
     */
    public static function codesADay(): int
    {
        return self::most(Limit::CodeAddress) + self::most(Limit::CodeAccount);
    }

    public static function most(Limit $limit): int
    {
        $own = config('vantrel.limits')[$limit->value] ?? null;

        // An empty line in the settings is none: no tries at all would let nobody in.
        return is_numeric($own) && (int) $own > 0 ? (int) $own : $limit->most();
    }

    /**
     * @param  array{0: Limit, 1: string}  $limit
     *
     * @throws TooManyRequestsHttpException
     */
    public function refuse(array $limit): never
    {
        $until = (int) DB::scalar('SELECT until FROM tries WHERE id = ?', [self::key($limit)]);
        throw new TooManyRequestsHttpException(max(1, $until - now()->getTimestamp()), 'Too many tries.');
    }

    /** @param  array{0: Limit, 1: string}  $limit */
    private static function key(array $limit): string
    {
        return hash('sha256', $limit[0]->value . '|' . $limit[1]);
    }
}
