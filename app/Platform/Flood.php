<?php

declare(strict_types=1);

namespace App\Platform;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Vantrel\Core\Accounts\Limit;

/** What one account may ask for in a minute: against floods only, far above what a person at several windows needs. */
final readonly class Flood
{
    public function __construct(private TryCounter $tries) {}

    public function handle(Request $request, Closure $next): Response
    {
        $account = $request->user()?->getAuthIdentifier();
        if (is_string($account)) {
            $this->tries->take([Limit::Requests, $account]);
        }

        return $next($request);
    }
}
