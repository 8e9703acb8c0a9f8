<?php

declare(strict_types=1);

namespace App\Platform;

use Closure;
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
            $this->tries->guard($limit);
            if (random_int(1, self::ONE_IN) === 1) {
                $this->tries->count($limit, self::ONE_IN);
            }
        }

        return $next($request);
    }
}
