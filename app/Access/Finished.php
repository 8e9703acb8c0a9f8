<?php

declare(strict_types=1);

namespace App\Access;

use Closure;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Keeps everything but a person's own secrets shut until they have done what their school asks first. */
final class Finished
{
    /** In the session: password or second_factor, what is still to do. */
    public const MUST = 'must';

    public function handle(Request $request, Closure $next): Response
    {
        if ($request->hasSession() && $request->session()->has(self::MUST)) {
            throw new AuthorizationException;
        }

        return $next($request);
    }
}
