<?php

declare(strict_types=1);

namespace App\OneRoster\Client;

use App\Models\RecordSource;
use GuzzleHttp\Exception\TransferException;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Response;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\Http;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Values;
use Vantrel\Core\Plan\Refusal;

/**
 * Asks a school's record, by OneRoster 1.2 and nothing but the standard: a token for client credentials, then page
 * after page as the Link header names them. It goes only to hosts that whoever runs the installation has named.
 */
final class RecordClient
{
    private const PAGE = 1000;

    /** More pages than any school has; a service that names a next page for ever is left. */
    private const MOST_PAGES = 400;

    /** A filter joins two terms at most. */
    private const IDS_A_FILTER = 2;

    private const SECONDS = 30;

    /** Of one answer, unpacked: a page of a thousand people has a hundredth of it. */
    private const BYTES = 50 * 1024 * 1024;

    private ?string $token = null;

    public function __construct(private readonly RecordSource $source) {}

    /** @return list<string> host and port of each that may be asked */
    public static function hosts(): array
    {
        $named = config('vantrel.record_hosts');

        return array_values(array_filter(array_map(trim(...), explode(',', is_string($named) ? $named : ''))));
    }

    /** @throws Refusal where nobody has named the host, or it is not asked safely */
    public static function mustBeNamed(string $url, string $field): void
    {
        $parts = parse_url($url);
        $host = is_array($parts) ? ($parts['host'] ?? '') . (isset($parts['port']) ? ":$parts[port]" : '') : '';
        $here = is_array($parts) && in_array($parts['host'] ?? '', ['127.0.0.1', 'localhost'], true);
        if ($host === '' || !in_array($host, self::hosts(), true)) {
            throw new Refusal(
                $host === ''
                    ? 'That is not an address. Write it as https://records.example/ims/oneroster/rostering/v1p2.'
                    : "This installation does not ask $host. Whoever runs it names the hosts in VANTREL_RECORD_HOSTS.",
                $field,
            );
        }
        if (($parts['scheme'] ?? '') !== 'https' && !$here) {
            throw new Refusal('The address begins with https://, or what is sent could be read on the way.', $field);
        }
    }

    /**
     * All of a collection.
     *
     * @param  string  $filter as the standard writes it; '' for all
     * @return list<array<string, mixed>>
     *
     * @throws Refusal where the record cannot be asked, with what it said
     */
    public function all(string $collection, string $filter = ''): array
    {
        $kind = Kind::named($collection)[0] ?? Kind::Users;
        $next =
            rtrim($this->source->base_url, '/') .
            "/$collection?" .
            http_build_query(['limit' => self::PAGE, 'offset' => 0, ...$filter === '' ? [] : ['filter' => $filter]]);
        $records = [];
        for ($page = 0; $next !== null; $page++) {
            if ($page >= self::MOST_PAGES) {
                throw new Refusal("The school’s record names ever more pages of $collection. Tell whoever runs it.");
            }
            self::mustBeNamed($next, 'base_url');
            $answer = $this->get($next);
            $list = $answer->json($kind->value);
            if (!is_array($list)) {
                throw new Refusal("The school’s record did not answer with $collection. Check its address.");
            }
            foreach ($list as $record) {
                if (is_array($record)) {
                    /** @var array<string, mixed> $record */
                    $records[] = $record;
                }
            }
            $link = (string) $answer->header('Link');
            $next = preg_match('/<([^>]+)>\s*;\s*rel="?next"?/', $link, $m) === 1 ? $m[1] : null;
        }

        return $records;
    }

    /**
     * The students with a number: one, where the record is in order.
     *
     * @return non-empty-list<array<string, mixed>>
     *
     * @throws Refusal where the record does not know it
     */
    public function students(string $number): array
    {
        $students = $this->all('users', 'identifier=' . self::quoted($number) . " AND roles.role='student'");

        return $students !== []
            ? $students
            : throw new Refusal("The school’s record has no student with the number “{$number}”.", 'number');
    }

    /**
     * Records by their ids.
     *
     * @param  list<string>  $ids
     * @return list<array<string, mixed>>
     */
    public function named(string $collection, array $ids): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($ids)), self::IDS_A_FILTER) as $some) {
            $filter = implode(' OR ', array_map(fn(string $id): string => 'sourcedId=' . self::quoted($id), $some));
            array_push($found, ...$this->all($collection, $filter));
        }

        return $found;
    }

    /**
     * Guardians of the student with a number, as the record has them.
     *
     * @return list<array{id: string, givenName: string, familyName: string, email: string, phone: string}>
     *
     * @throws Refusal where the record does not know the student
     */
    public function guardiansOf(string $number): array
    {
        $agents = array_map(fn(array $s): array => Values::of($s, 'agents.sourcedId'), $this->students($number));

        return array_map(function (array $user): array {
            $of = fn(string $field): string => Values::of($user, $field)[0] ?? '';

            return [
                'id' => $of('sourcedId'),
                'givenName' => $of('givenName'),
                'familyName' => $of('familyName'),
                'email' => $of('email'),
                'phone' => $of('phone') !== '' ? $of('phone') : $of('sms'),
            ];
        }, $this->named('users', array_merge(...$agents)));
    }

    /** A value in a filter. */
    public static function quoted(string $text): string
    {
        return "'" . str_replace("'", "''", $text) . "'";
    }

    private function get(string $url, bool $again = true): Response
    {
        $token = $this->token ??= $this->token();
        $answer = $this->call(
            fn(BoundedBody $into): Response => Http::timeout(self::SECONDS)
                ->withOptions(['allow_redirects' => false, 'sink' => $into])
                ->withToken($token)
                ->acceptJson()
                ->get($url),
        );
        // A token may run out between two pages.
        if ($answer->status() === 401 && $again) {
            $this->token = null;

            return $this->get($url, false);
        }
        if (!$answer->successful()) {
            $said = $answer->json('imsx_description');
            throw new Refusal(
                "The school’s record answers {$answer->status()}" .
                    (is_string($said) ? ': ' . mb_strimwidth($said, 0, 200, '…') : '.'),
            );
        }
        return $answer;
    }

    private function token(): string
    {
        self::mustBeNamed($this->source->token_url, 'token_url');
        $answer = $this->call(
            fn(BoundedBody $into): Response => Http::timeout(self::SECONDS)
                ->withOptions(['allow_redirects' => false, 'sink' => $into])
                ->asForm()
                ->withBasicAuth(
                    rawurlencode($this->source->client_id),
                    rawurlencode(Crypt::decryptString($this->source->sealed_key)),
                )
                ->post($this->source->token_url, [
                    'grant_type' => 'client_credentials',
                    'scope' =>
                        'https://purl.imsglobal.org/spec/or/v1p2/scope/roster.readonly ' .
                        'https://purl.imsglobal.org/spec/or/v1p2/scope/roster-demographics.readonly',
                ]),
        );
        $token = $answer->json('access_token');

        return $answer->successful() && is_string($token) && $token !== ''
            ? $token
            : throw new Refusal('The school’s record does not take the client id and secret.', 'client_secret');
    }

    /** @param  callable(BoundedBody): Response  $ask what it answers goes into that */
    private function call(callable $ask): Response
    {
        $into = new BoundedBody(self::BYTES);
        try {
            return $ask($into);
        } catch (ConnectionException | TransferException $e) {
            if ($into->isOver) {
                throw new Refusal('The school’s record answers with more than a page of people can be.');
            }
            if (!($e instanceof ConnectionException)) {
                throw $e;
            }
            throw new Refusal(
                'The school’s record does not answer. Try again later, or check its address.',
                'base_url',
            );
        }
    }
}
