<?php

declare(strict_types=1);

namespace App\Ledger;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Arms the {@see WriteGuard} for the time of a request. */
final class GuardWrites
{
    public function handle(Request $request, Closure $next): Response
    {
        WriteGuard::arm();
        try {
            return $next($request);
        } finally {
            WriteGuard::disarm();
        }
    }
}
