<?php

declare(strict_types=1);

namespace App\Access;

use App\Platform\SchoolDay;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/**
 * From a typed code to its section. Only well-formed unknown codes count as tries, by address and by account; mistyped ones are
 * never looked up. What newcomers try with a code that works is counted by that code as well.
 */
final class JoinDesk
{
    private const DAY = 86400;

    /**
     * @return array{Row, Row} section and code, with the columns that coming in asks for
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
        $this->guardAll($limits);
        // One statement as it stands, without a builder: a whole school types codes within the same minutes.
        $found = DB::selectOne("SELECT c.id, c.version, c.section_id, c.state, c.who, c.starts_at, c.ends_at, c.cap, s.version AS section_version, s.school_id, s.name, s.grade, s.state AS section_state, z.time_zone
            FROM join_codes c JOIN sections s ON s.id = c.section_id JOIN schools z ON z.id = s.school_id WHERE c.code = ? AND c.state = 'open' AND s.state = 'open'", [$symbols]);
        if ($found === null) {
            foreach (array_keys($limits) as $key) {
                RateLimiter::hit($key, self::DAY);
            }
            throw new Refusal('This code opens nothing, or not any more. Ask your teacher for the one that works today.', 'code');
        }

        SchoolDay::know($found->school_id, $found->time_zone);

        return [
            new Row($found->section_id, (int) $found->section_version, ['school_id' => $found->school_id, 'name' => $found->name, 'grade' => $found->grade, 'state' => $found->section_state]),
            new Row($found->id, (int) $found->version, ['section_id' => $found->section_id, 'state' => $found->state, 'who' => $found->who, 'starts_at' => $found->starts_at, 'ends_at' => $found->ends_at, 'cap' => $found->cap]),
        ];
    }

    /** How many students are in the section by this code. */
    public function cameIn(Row $code): int
    {
        return (int) DB::scalar('SELECT COUNT(*) FROM enrollments WHERE join_code_id = ? AND ends_on IS NULL', [$code->id]);
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

    /**
     * The counts of all limits in one reading: this is the way of every child who types a code.
     *
     * @param  array<string, int>  $limits
     */
    private function guardAll(array $limits): void
    {
        $keys = array_map(RateLimiter::cleanRateLimiterKey(...), array_keys($limits));
        $counts = array_values(Cache::many($keys));
        foreach (array_keys($limits) as $i => $key) {
            if ((int) ($counts[$i] ?? 0) >= $limits[$key]) {
                $this->guard($key, $limits[$key]);
            }
        }
    }

    private function guard(string $key, int $most): void
    {
        if (RateLimiter::tooManyAttempts($key, $most)) {
            throw new TooManyRequestsHttpException(RateLimiter::availableIn($key), 'Too many tries.');
        }
    }
}
