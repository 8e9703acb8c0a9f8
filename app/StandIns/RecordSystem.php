<?php

declare(strict_types=1);

namespace App\StandIns;

use Vantrel\Core\OneRoster\CodeMinor;
use Vantrel\Core\OneRoster\Fault;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Values;

/**
 * Stands in for a school's record: the rostering service of OneRoster 1.2 (REST, OAuth 2 client credentials) with data
 * of its own, kept in a file. It has no framework under it and runs in a process of its own, as a real one would.
 */
final class RecordSystem
{
    public const BASE = '/ims/oneroster/rostering/v1p2/';

    /** Whether a token is one of ours: it is a keyed sum of the hour, so nothing has to be kept. */
    private const HOUR = 3600;

    /**
     * @param  array<string, list<array<string, mixed>>>  $records name of a {@see Kind} to records
     */
    public function __construct(
        private readonly string $clientId,
        private readonly string $secret,
        private readonly array $records,
    ) {}

    public static function of(string $file): self
    {
        /**
         * @var array{client: array{id: string, secret: string}, records: array<string, list<array<string, mixed>>>}
         */
        $kept = json_decode((string) file_get_contents($file), true, 512, JSON_THROW_ON_ERROR);

        return new self($kept['client']['id'], $kept['client']['secret'], $kept['records']);
    }

    /**
     * @param  array<string, mixed>  $query
     * @param  array<string, mixed>  $form what was posted
     * @param  string  $authorization header
     * @param  string  $host as the Link header names it
     * @return array{int, array<string, string>, array<string, mixed>} status, headers, body
     */
    public function answer(
        string $method,
        string $path,
        array $query,
        array $form,
        string $authorization,
        string $host,
        int $now,
    ): array {
        if ($method === 'POST' && $path === '/token') {
            $basic = 'Basic ' . base64_encode(rawurlencode($this->clientId) . ':' . rawurlencode($this->secret));

            return hash_equals($basic, $authorization) && ($form['grant_type'] ?? '') === 'client_credentials'
                ? [
                    200,
                    [],
                    [
                        'access_token' => $this->token($now),
                        'token_type' => 'Bearer',
                        'expires_in' => self::HOUR,
                        'scope' => $form['scope'] ?? '',
                    ],
                ]
                : [401, ['WWW-Authenticate' => 'Basic'], ['error' => 'invalid_client']];
        }
        try {
            if (
                !hash_equals("Bearer {$this->token($now)}", $authorization) &&
                !hash_equals("Bearer {$this->token($now - self::HOUR)}", $authorization)
            ) {
                throw new Fault(CodeMinor::Unauthorised, 'No token, or one that is over.');
            }

            return $this->records($path, $query, $host);
        } catch (Fault $e) {
            return [$e->minor->status(), [], $e->payload()];
        }
    }

    /**
     * @param  array<string, mixed>  $query
     * @return array{int, array<string, string>, array<string, mixed>}
     */
    private function records(string $path, array $query, string $host): array
    {
        if (preg_match('#^' . self::BASE . '(\w+)(?:/([\w-]+))?$#', $path, $m) !== 1) {
            throw new Fault(CodeMinor::UnknownObject, 'There is nothing at this address.');
        }
        [$kind, $only] = Kind::named($m[1]) ?? throw new Fault(CodeMinor::UnknownObject, "There is no $m[1].");
        $records = array_values(
            array_filter(
                $this->records[$kind->value] ?? [],
                fn(array $r): bool => ($only === null || array_intersect(Values::of($r, $only[0]), $only[1]) !== []) &&
                    (!isset($m[2]) || Values::of($r, 'sourcedId') === [$m[2]]),
            ),
        );
        if (isset($m[2])) {
            return $records === []
                ? throw new Fault(CodeMinor::UnknownObject, "There is no $m[2].")
                : [200, [], [$kind->one() => $records[0]]];
        }
        $asked = Query::read($query, $kind);
        [$page, $total] = Values::page($records, $asked);
        /** @var array<string, string> $typed */
        $typed = array_filter($query, is_string(...));

        return [
            200,
            ['X-Total-Count' => (string) $total, 'Link' => $asked->links("http://$host$path", $typed, $total)],
            [$kind->value => $page],
        ];
    }

    private function token(int $now): string
    {
        return hash_hmac('sha256', (string) intdiv($now, self::HOUR), $this->secret);
    }
}
