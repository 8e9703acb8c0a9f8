<?php

declare(strict_types=1);

namespace App\Platform;

use Closure;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Crypt;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\GoneHttpException;

/**
 * What is asked twice under one Idempotency-Key is done once: a page whose answer was lost on the way asks again under
 * the same key and gets the answer of the first. The field's name and use are those of the IETF's draft
 * (draft-ietf-httpapi-idempotency-key-header); a key without an answer yet is refused with 409, as it says. It stands
 * behind every check of who may: what somebody may not do any more is not answered from memory.
 */
final class OnceOnly
{
    /** Seconds for which an answer is kept, encrypted: as long as somebody sits before the page that asked. */
    private const KEPT = 600;

    private const LARGEST = 262_144;

    /** Stands for an answer that is not kept: a file with secrets in it, or one that is too large. */
    private const LOST = 'lost';

    public function handle(Request $request, Closure $next): Response
    {
        $key = $request->header('Idempotency-Key');
        if (
            !is_string($key) ||
            preg_match('/^[A-Za-z0-9-]{16,64}$/', $key) !== 1 ||
            $request->isMethodSafe() ||
            !Auth::check() ||
            ($request->getContent() === '' && $request->all() !== [])
        ) {
            return $next($request);
        }
        $name =
            'once|' .
            hash(
                'sha256',
                implode("\n", [Auth::id(), $request->method(), $request->path(), $key, $request->getContent()]),
            );
        $lock = Cache::lock("$name|now", 120);
        if (!$lock->get()) {
            throw new ConflictHttpException(
                'This is being done already. Wait a moment, then look whether it is there.',
            );
        }
        try {
            $kept = Cache::get($name);
            if (is_string($kept)) {
                return self::again(Crypt::decryptString($kept));
            }
            $response = $next($request);
            if ($response->isSuccessful()) {
                $answer = $response instanceof JsonResponse ? (string) $response->getContent() : '';
                $whole = $answer !== '' || $response->getStatusCode() === Response::HTTP_NO_CONTENT;
                Cache::put(
                    $name,
                    Crypt::encryptString(
                        $whole && strlen($answer) <= self::LARGEST ? $response->getStatusCode() . $answer : self::LOST,
                    ),
                    self::KEPT,
                );
            }

            return $response;
        } finally {
            $lock->release();
        }
    }

    /** @param  string  $kept status of three digits and the JSON after it */
    private static function again(string $kept): Response
    {
        if ($kept === self::LOST) {
            throw new GoneHttpException('It was done, but what it made was lost on its way. Ask for it once more.');
        }
        $status = (int) substr($kept, 0, 3);

        return strlen($kept) > 3 ? JsonResponse::fromJsonString(substr($kept, 3), $status) : new Response('', $status);
    }
}
