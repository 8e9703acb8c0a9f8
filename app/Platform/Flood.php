<?php

declare(strict_types=1);

namespace App\Platform;

use App\Models\Person;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Vantrel\Core\Accounts\Limit;

/**
 * What one account may ask for in a minute: against floods only, far above what a person at several windows needs. So
 * that not every request writes, and waits for the disk, one in sixteen is counted, for sixteen; all are looked at.
 */
final readonly class Flood
{
    private const ONE_IN = 16;

    public function __construct(private TryCounter $tries) {}

    public function handle(Request $request, Closure $next): Response
    {
        $account = $request->user()?->getAuthIdentifier();
        if (is_string($account)) {
            $limit = [Limit::Requests, $account];
            $lately = $request->attributes->get(self::key($account));
            $this->tries->guard($limit, is_int($lately) ? $lately : null);
            if (random_int(1, self::ONE_IN) === 1) {
                $this->tries->count($limit, self::ONE_IN);
            }
        }

        return $next($request);
    }

    /** For the statement that reads who asks: how much they have asked for, as {@see keep()} takes it. */
    public static function column(string $account): Builder
    {
        return TryCounter::column([Limit::Requests, $account]);
    }

    /** Keeps for a request what was read with the person who makes it. */
    public static function keep(Request $request, Person $person, int $lately): void
    {
        $request->attributes->set(self::key($person->id), $lately);
    }

    private static function key(string $account): string
    {
        return self::class . ' ' . $account;
    }
}
