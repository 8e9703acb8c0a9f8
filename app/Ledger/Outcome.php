<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/**
 * What has come of a request that wrote to the ledger, for an answer that fails after it: it must not say that nothing
 * was changed once it was, and not that it was where nobody knows.
 */
final class Outcome
{
    private const KEY = 'ledger_outcome';

    /** Called inside the transaction that writes. */
    public static function writing(): void
    {
        self::set('writing');
        DB::afterCommit(fn() => self::set('done'));
    }

    /** Called as a transaction is about to be committed: from here to its end nobody knows. */
    public static function committing(Connection $connection): void
    {
        if (
            $connection->getName() === config('database.default') &&
            $connection->transactionLevel() === 1 &&
            self::of(request()) === 'writing'
        ) {
            self::set('unknown');
        }
    }

    /** @return string '' or writing (and taken back, where it failed), done, or unknown */
    public static function of(Request $request): string
    {
        return (string) $request->attributes->get(self::KEY, '');
    }

    private static function set(string $outcome): void
    {
        request()->attributes->set(self::KEY, $outcome);
    }
}
