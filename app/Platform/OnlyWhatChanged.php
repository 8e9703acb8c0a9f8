<?php

declare(strict_types=1);

namespace App\Platform;

use Closure;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Gives each JSON answer its entity tag, and says to who has it already that nothing has changed (RFC 9110, 13.1.2):
 * pages that look again every few seconds fetch a roster once. Server-sent events would hold one of a handful of
 * php-fpm processes for as long as a page is open.
 */
final class OnlyWhatChanged
{
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        if ($response instanceof JsonResponse && $request->isMethod('GET') && $response->getStatusCode() === 200) {
            $response->setEtag(hash('xxh128', (string) $response->getContent()));
            $response->isNotModified($request);
        }

        return $response;
    }
}
