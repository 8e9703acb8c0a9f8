<?php

declare(strict_types=1);

namespace App\Wiring;

use App\Ledger\Outcome;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Log;
use Illuminate\Validation\ValidationException;
use PDOException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Throwable;
use Vantrel\Core\OneRoster\CodeMinor;
use Vantrel\Core\OneRoster\Fault;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Table\UnreadableList;

/**
 * Errors of the API as problem details (RFC 9457): `title`, `status`, `detail`, and `errors` by field where there are
 * fields; `sentence` and `values` where the detail is a sentence with places that were filled. Those of the service for
 * other programs are status information of OneRoster.
 */
final class Problems
{
    private const NOT_YOURS = 'Your account may not do this here. Ask the coordinator of the school.';

    /** MariaDB's numbers of a deadlock and of a lock that was waited for too long. */
    private const BUSY = [1213, 1205];

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->dontReport([Refusal::class, StalePlan::class, UnreadableList::class]);
        // The statement with its places, the kind of error and where it happened: never the values, which are people's.
        $exceptions->report(function (QueryException $e): bool {
            Log::error('A statement failed.', [
                'state' => $e->getCode(),
                'error' => $e->errorInfo[1] ?? null,
                'sql' => $e->getSql(),
                'at' => self::place($e),
            ]);

            return false;
        });
        $exceptions->render(function (Throwable $e, Request $request): ?JsonResponse {
            if ($request->is('ims/*')) {
                return self::fault($e);
            }
            if (!$request->is('api/*')) {
                return null;
            }

            return match (true) {
                $e instanceof ValidationException => self::problem(
                    422,
                    'Something is not filled in right',
                    (string) collect($e->errors())->flatten()->first(),
                    ['errors' => $e->errors()],
                ),
                $e instanceof Refusal => self::problem(422, 'That cannot be done', $e->getMessage(), [
                    ...$e->field === null ? [] : ['errors' => [$e->field => [$e->getMessage()]]],
                    ...$e->values === [] ? [] : ['sentence' => $e->sentence, 'values' => $e->values],
                ]),
                $e instanceof UnreadableList => self::problem(422, 'The list cannot be read', $e->getMessage()),
                $e instanceof StalePlan => self::problem(409, 'Changed since you looked', $e->getMessage(), [
                    'changed' => $e->changed,
                ]),
                $e instanceof AuthenticationException => self::problem(
                    401,
                    'Not signed in',
                    'Sign in, then try again.',
                ),
                $e instanceof AuthorizationException => self::problem(403, 'Not yours to do', self::NOT_YOURS),
                $e instanceof HttpExceptionInterface => self::http($e),
                self::isBusy($e) && Outcome::of($request) !== 'done' => self::problem(
                    503,
                    'Too much at once',
                    'Others are changing the same just now. Nothing was changed; try again in a moment.',
                ),
                default => self::problem(
                    500,
                    'Something failed here',
                    match (Outcome::of($request)) {
                        'done' => 'It was done and is in the Ledger; only the answer failed. Load the page again.',
                        'unknown' => 'Whether it was done is not known: the database broke off as it was being ' .
                            'written. Look in the Ledger before you try again.',
                        default => 'It has been noted. Nothing was changed; try again, and if it fails again, tell ' .
                            'whoever looks after this server.',
                    },
                ),
            };
        });
    }

    /** To the programs of a school, in the words of their standard. */
    private static function fault(Throwable $e): JsonResponse
    {
        $isHttp = $e instanceof HttpExceptionInterface;
        $fault = match (true) {
            $isHttp && $e->getStatusCode() === 429 => new Fault(
                CodeMinor::ServerBusy,
                'Too many requests. Wait for as long as Retry-After says, then go on.',
            ),
            $isHttp && $e->getStatusCode() < 500 => new Fault(
                CodeMinor::UnknownObject,
                'There is nothing at this address, or nothing to be had this way.',
            ),
            default => new Fault(
                CodeMinor::InternalError,
                'Something failed here. It has been noted; ask again later.',
            ),
        };

        return new JsonResponse($fault->payload(), $isHttp ? $e->getStatusCode() : $fault->minor->status(), [
            ...$isHttp ? $e->getHeaders() : [],
            'Content-Type' => 'application/json',
            'Cache-Control' => 'no-store',
        ]);
    }

    private static function isBusy(Throwable $e): bool
    {
        for ($at = $e; $at !== null; $at = $at->getPrevious()) {
            if ($at instanceof PDOException && in_array($at->errorInfo[1] ?? null, self::BUSY, true)) {
                return true;
            }
        }

        return false;
    }

    /** The first place in our own code on the way to an error. */
    private static function place(Throwable $e): string
    {
        foreach ($e->getTrace() as $frame) {
            if (isset($frame['file']) && str_contains($frame['file'], '/app/')) {
                return substr($frame['file'], (int) strrpos($frame['file'], '/app/') + 1) . ':' . ($frame['line'] ?? 0);
            }
        }

        return basename($e->getFile()) . ':' . $e->getLine();
    }

    private static function http(HttpExceptionInterface $e): JsonResponse
    {
        [$title, $detail] = match ($e->getStatusCode()) {
            403 => [
                'Not yours to do',
                // The framework's own sentence where a policy says nothing itself.
                in_array($e->getMessage(), ['', 'This action is unauthorized.'], true)
                    ? self::NOT_YOURS
                    : $e->getMessage(),
            ],
            404 => ['Not found', 'There is nothing here, or nothing that your account may see.'],
            413 => [
                'Too large',
                $e->getMessage() ?: 'The file is too large. Split the list, or save it without pictures.',
            ],
            419 => ['The page was open too long', 'You were signed out. Sign in again.'],
            429 => [
                'Too many tries',
                'There have been too many tries. Wait ' .
                self::wait((int) ($e->getHeaders()['Retry-After'] ?? 60)) .
                ', then try again.',
            ],
            default => ['That did not work', $e->getMessage()],
        };
        $response = self::problem($e->getStatusCode(), $title, $detail);
        $response->headers->add($e->getHeaders());
        $response->headers->set('Content-Type', 'application/problem+json');

        return $response;
    }

    private static function wait(int $seconds): string
    {
        return $seconds > 5400
            ? Words::count((int) ceil($seconds / 3600), 'hour')
            : ($seconds > 90
                ? Words::count((int) ceil($seconds / 60), 'minute')
                : 'a minute');
    }

    /** @param  array<string, mixed>  $more */
    private static function problem(int $status, string $title, string $detail, array $more = []): JsonResponse
    {
        return new JsonResponse(['title' => $title, 'status' => $status, 'detail' => $detail, ...$more], $status, [
            'Content-Type' => 'application/problem+json',
        ]);
    }
}
