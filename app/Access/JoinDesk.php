<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Snapshots;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/**
 * From a typed code to its section. Only well-formed unknown codes count as tries, by address and by account; mistyped ones are
 * never looked up. What newcomers try with a code that works is counted by that code as well.
 */
final class JoinDesk
{
    private const DAY = 86400;

    public function __construct(private readonly Snapshots $snapshots)
    {
    }

    /**
     * @return array{Row, Row} section and code
     *
     * @throws Refusal saying which kind of mistake it is
     * @throws TooManyRequestsHttpException
     */
    public function open(Request $request, string $typed): array
    {
        try {
            $symbols = JoinCode::parse($typed)->symbols;
        } catch (MalformedCode $e) {
            throw new Refusal($e->getMessage(), 'code');
        }
        $limits = ['join|'.$request->ip() => (int) config('vantrel.code_tries_per_day')];
        $account = $request->user()?->getAuthIdentifier();
        if (is_string($account)) {
            $limits["join-by|$account"] = (int) config('vantrel.code_tries_per_account');
        }
        foreach ($limits as $key => $most) {
            $this->guard($key, $most);
        }
        $code = $this->snapshots->list(Entity::JoinCode, fn ($q) => $q->where('code', $symbols)->where('state', 'open'))[0] ?? null;
        $section = $code === null ? null : $this->snapshots->find(Entity::Section, $code->text('section_id'));
        if ($code === null || $section === null || $section->text('state') !== 'open') {
            foreach (array_keys($limits) as $key) {
                RateLimiter::hit($key, self::DAY);
            }
            throw new Refusal('This code opens nothing, or not any more. Ask your teacher for the one that works today.', 'code');
        }

        return [$section, $code];
    }

    /** How many students are in the section by this code. */
    public function cameIn(Row $code): int
    {
        return DB::table('enrollments')->where('join_code_id', $code->id)->whereNull('ends_on')->count();
    }

    /**
     * Counts a newcomer's request against the code and the address: who has the link can ask, but not without end.
     *
     * @throws TooManyRequestsHttpException
     */
    public function countAsk(Request $request, Row $code): void
    {
        foreach (["ask|$code->id" => 300, 'ask-from|'.$request->ip() => 300] as $key => $most) {
            $this->guard($key, $most);
            RateLimiter::hit($key, 3600);
        }
    }

    /**
     * Before a newcomer's proof is looked at: by student, by address, by code.
     *
     * @throws TooManyRequestsHttpException
     */
    public function guardProof(Request $request, Row $code, string $personId): void
    {
        foreach ($this->proofLimits($request, $code, $personId) as $key => $most) {
            $this->guard($key, $most);
        }
    }

    public function countProof(Request $request, Row $code, string $personId): void
    {
        foreach (array_keys($this->proofLimits($request, $code, $personId)) as $key) {
            RateLimiter::hit($key, self::DAY);
        }
    }

    /** @return array<string, int> */
    private function proofLimits(Request $request, Row $code, string $personId): array
    {
        return ["proof|$personId" => 5, 'proof-from|'.$request->ip() => 40, "proof-with|$code->id" => 60];
    }

    private function guard(string $key, int $most): void
    {
        if (RateLimiter::tooManyAttempts($key, $most)) {
            throw new TooManyRequestsHttpException(RateLimiter::availableIn($key), 'Too many tries.');
        }
    }
}
