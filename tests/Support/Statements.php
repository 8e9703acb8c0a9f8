<?php

declare(strict_types=1);

namespace Tests\Support;

use Closure;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;

/** The statements that a piece of work sends to the database, as they are prepared. */
final class Statements
{
    /** @return list<string> */
    public static function of(Closure $work): array
    {
        $sent = [];
        $listening = true;
        DB::listen(function (QueryExecuted $q) use (&$sent, &$listening): void {
            // Of requests one in sixteen is counted against floods: not one that a budget can hold.
            $flood = str_starts_with($q->sql, 'INSERT INTO tries') && ($q->bindings[2] ?? 1) === 16;
            if ($listening && !$flood) {
                $sent[] = (string) preg_replace('/\s+/', ' ', $q->sql);
            }
        });
        $work();
        $listening = false;

        return $sent;
    }

    /** Fails with the list where there are more than the budget. */
    public static function atMost(int $budget, Closure $work): int
    {
        $sent = self::of($work);
        expect(count($sent))->toBeLessThanOrEqual(
            $budget,
            count($sent) . " statements instead of $budget:\n" . implode("\n", $sent),
        );

        return count($sent);
    }
}
