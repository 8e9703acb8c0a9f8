<?php

declare(strict_types=1);

namespace App\Platform;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * How much a request may say before anything reads it: what work it makes is bounded by that. Files come as
 * multipart/form-data, whose size the server's settings bound.
 */
final class BodySize
{
    /** Bytes of a body. The largest that is meant, a letter in seven languages, has some 400,000. */
    public const MOST = 1_000_000;

    /** Commas of a body: lists hold 5,000 entries at most, and every entry is walked through before it is looked at. */
    public const MOST_PARTS = 60_000;

    /** Bytes from somebody who is not signed in: a form of a few fields. */
    public const MOST_OF_A_GUEST = 20_000;

    public function handle(Request $request, Closure $next, string $most = ''): Response
    {
        $bytes = $most === '' ? self::MOST : (int) $most;
        $isForm = str_starts_with((string) $request->headers->get('Content-Type'), 'multipart/form-data');
        if ($isForm && $most === '') {
            return $next($request);
        }
        if (
            (int) $request->headers->get('Content-Length') > $bytes ||
            (!$isForm && strlen($request->getContent()) > $bytes)
        ) {
            throw new HttpException(
                413,
                'That is more than is asked for here: ' . number_format($bytes) . ' bytes at most.',
            );
        }

        if (!$isForm && substr_count($request->getContent(), ',') > self::MOST_PARTS) {
            throw new HttpException(413, 'That has more parts than anything asked for here.');
        }

        return $next($request);
    }
}
