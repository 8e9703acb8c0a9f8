<?php

declare(strict_types=1);

namespace App\OneRoster\Http;

use App\Models\School;
use App\OneRoster\RosterKeys;
use App\OneRoster\Source;
use App\OneRoster\Within;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Vantrel\Core\OneRoster\CodeMinor;
use Vantrel\Core\OneRoster\Fault;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;

/**
 * The rostering service of OneRoster 1.2, read-only, from a school's own data. Each key is of one school, and of no
 * other does it find anything.
 */
final readonly class ServiceController
{
    public const BASE = 'ims/oneroster/rostering/v1p2';

    public function __construct(private RosterKeys $keys, private Within $within) {}

    public function collection(Request $request, string $collection): JsonResponse
    {
        return $this->answer(
            $request,
            fn(Source $s, array $scopes, School $school) => $this->list($request, $collection, [], $s, $scopes),
        );
    }

    public function one(Request $request, string $collection, string $id): JsonResponse
    {
        return $this->answer($request, function (Source $source, array $scopes) use (
            $request,
            $collection,
            $id,
        ): JsonResponse {
            [$kind, $only] = self::kind($collection, $scopes);
            $query = Query::read(['limit' => '1', 'fields' => $request->query->all()['fields'] ?? null], $kind);
            Scope::mustAllow($scopes, $kind, $query);
            [$records] = $source->page($kind, [...$only === null ? [] : [$only], ['sourcedId', [$id]]], $query);
            $record = $records[0] ?? throw self::unknown($collection, $id);

            return new JsonResponse([$kind->one() => $record]);
        });
    }

    public function within(Request $request, string $of, string $id, string $collection): JsonResponse
    {
        return $this->answer($request, function (Source $source, array $scopes, School $school) use (
            $request,
            $of,
            $id,
            $collection,
        ): JsonResponse {
            $only = $this->within->only($school, $of, $id, $collection);

            return $this->list($request, $collection, $only ?? throw self::unknown($of, $id), $source, $scopes);
        });
    }

    public function withinClass(Request $request, string $id, string $class, string $collection): JsonResponse
    {
        return $this->answer($request, function (Source $source, array $scopes, School $school) use (
            $request,
            $id,
            $class,
            $collection,
        ): JsonResponse {
            $only = $id === $school->id ? $this->within->only($school, 'classes', $class, $collection) : null;

            return $this->list(
                $request,
                $collection,
                $only ?? throw self::unknown('classes', $class),
                $source,
                $scopes,
            );
        });
    }

    public function nothing(): JsonResponse
    {
        return self::fault(new Fault(CodeMinor::UnknownObject, 'There is nothing at this address.'));
    }

    /**
     * @param  list<array{string, list<string>}>  $only
     * @param  list<Scope>  $scopes
     */
    private function list(
        Request $request,
        string $collection,
        array $only,
        Source $source,
        array $scopes,
    ): JsonResponse {
        [$kind, $some] = self::kind($collection, $scopes);
        /** @var array<string, string> $typed */
        $typed = array_filter($request->query->all(), is_string(...));
        $query = Query::read($typed, $kind);
        Scope::mustAllow($scopes, $kind, $query);
        [$records, $total] = $source->page($kind, $some === null ? $only : [...$only, $some], $query);

        return new JsonResponse([$kind->value => $records], 200, [
            'X-Total-Count' => (string) $total,
            'Link' => $query->links($request->url(), $typed, $total),
        ]);
    }

    /**
     * @param  list<Scope>  $scopes
     * @return array{Kind, array{string, list<string>}|null}
     */
    private static function kind(string $collection, array $scopes): array
    {
        $named = Kind::named($collection) ?? throw self::unknown($collection, '');
        if (!Scope::opens($scopes, $named[0])) {
            throw new Fault(CodeMinor::Forbidden, "This key may not read $collection.");
        }

        return $named;
    }

    /** @param  callable(Source, list<Scope>, School): JsonResponse  $make */
    private function answer(Request $request, callable $make): JsonResponse
    {
        try {
            $opened =
                $this->keys->open((string) $request->bearerToken(), $request->path()) ??
                throw new Fault(
                    CodeMinor::Unauthorised,
                    'The token does not work, or not any more. Ask for another one.',
                );
            [$key, $scopes] = $opened;
            $school = School::query()->findOrFail($key->school_id);
            $base = rtrim((string) config('app.url'), '/') . '/' . self::BASE;

            return $make(new Source($school, $scopes, $base, $key->id), $scopes, $school)->withHeaders([
                'Cache-Control' => 'no-store',
            ]);
        } catch (Fault $e) {
            return self::fault($e);
        }
    }

    private static function fault(Fault $fault): JsonResponse
    {
        return new JsonResponse($fault->payload(), $fault->minor->status(), [
            'Cache-Control' => 'no-store',
            ...$fault->minor === CodeMinor::Unauthorised ? ['WWW-Authenticate' => 'Bearer'] : [],
        ]);
    }

    private static function unknown(string $collection, string $id): Fault
    {
        return new Fault(
            CodeMinor::UnknownObject,
            $id === '' ? "There is no collection $collection." : "There is nothing called $id among $collection.",
        );
    }
}
