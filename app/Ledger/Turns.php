<?php

declare(strict_types=1);

namespace App\Ledger;

use Closure;
use Illuminate\Support\Facades\DB;
use Throwable;
use Vantrel\Core\Plan\StalePlan;

/**
 * Lists are applied one after another: a list can meet anybody of the district, and two that add the same child at once
 * would not know of each other. The row that is locked for it is written too, so that it also keeps nodes of a cluster
 * apart.
 */
final class Turns
{
    /** Times a list is planned anew by itself where something it had read has changed before it could be written. */
    private const ATTEMPTS = 3;

    /**
     * Seconds to wait for the lists before, each time: all times together stay below what a worker gives a job
     * (bin/start, 300).
     */
    private const WAIT = 80;

    /**
     * @template T
     *
     * @param  Closure(): T  $work plans and applies one list, inside one transaction
     * @return T
     *
     * @throws StalePlan where it is overtaken each time
     * @throws Throwable as the work does
     */
    public static function take(Closure $work): mixed
    {
        DB::statement('SET SESSION innodb_lock_wait_timeout = ' . self::WAIT);
        try {
            for ($left = self::ATTEMPTS; ; $left--) {
                try {
                    return DB::transaction(function () use ($work): mixed {
                        DB::table('intake_turns')
                            ->where('id', 1)
                            ->update(['taken' => DB::raw('taken + 1')]);

                        return $work();
                    }, self::ATTEMPTS);
                } catch (StalePlan $e) {
                    if ($left === 1) {
                        throw $e;
                    }
                }
            }
        } finally {
            DB::statement('SET SESSION innodb_lock_wait_timeout = DEFAULT');
        }
    }
}
