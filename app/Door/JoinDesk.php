<?php

declare(strict_types=1);

namespace App\Door;

use App\Accounts\Opened;
use App\Platform\SchoolDay;
use App\Platform\TryCounter;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;

/**
 * From a typed code to its section. Only well-formed unknown codes count as tries; mistyped ones are never looked up.
 * Whoever is signed in is turned away for the tries of that account alone, though they count for the address as well;
 * whoever is not is never turned away, but waits for a person where many wrong codes came ({@see LookedAt}): children
 * of a whole school stand behind one address. What newcomers try with a code that works is counted by that code too.
 */
final class JoinDesk
{
    /** Wrong codes of one account while many come: a slip or two. */
    private const TRIES_AMONG_MANY = 3;

    /** In the session: the request this browser has made, and a stamp of the password it chose. */
    private const REQUEST = 'join_request';

    public function __construct(private readonly TryCounter $tries) {}

    /**
     * This browser waits for the answer to a request; '' to one that nobody will answer, made by a code that is none.
     *
     * @param  string|null  $password hash of what was chosen with it
     */
    public static function waits(Request $request, string $requestId, ?string $password): void
    {
        $request->session()->put(self::REQUEST, ['id' => $requestId, 'stamp' => Opened::stampOf($password)]);
    }

    /** @return array{string, string}|null the request that this browser waits for, and the stamp */
    public static function waiting(Request $request): ?array
    {
        $kept = $request->session()->get(self::REQUEST);

        return is_array($kept) ? [(string) ($kept['id'] ?? ''), (string) ($kept['stamp'] ?? '')] : null;
    }

    public static function waitsNoMore(Request $request): void
    {
        $request->session()->forget(self::REQUEST);
    }

    /**
     * @return array{Records\Section, Records\JoinCode} section and code, with the columns that coming in asks for
     *
     * @throws Refusal saying which kind of mistake it is
     * @throws TooManyRequestsHttpException
     */
    public function open(Request $request, string $typed): array
    {
        $symbols = $this->symbols($typed);
        $account = $request->user()?->getAuthIdentifier();
        if (is_string($account)) {
            $this->mustHaveTries($request, $account);
        }
        // One statement as it stands, without a builder: a whole school types codes within the same minutes.
        $found = DB::selectOne(
            "SELECT c.id, c.version, c.section_id, c.state, c.who, c.starts_at, c.ends_at, c.cap,
                s.version AS section_version, s.school_id, s.name, s.grade, s.state AS section_state, z.time_zone
            FROM join_codes c JOIN sections s ON s.id = c.section_id JOIN schools z ON z.id = s.school_id
            WHERE c.code = ? AND c.state = 'open' AND s.state = 'open'",
            [$symbols],
        );
        if ($found === null) {
            // A class that types the code of last week guesses nothing.
            if (DB::scalar('SELECT 1 FROM join_codes WHERE code = ? LIMIT 1', [$symbols]) === null) {
                $own = is_string($account) ? [[Limit::CodeAccount, $account]] : [];
                array_map($this->tries->count(...), [...$own, ...self::codes($request)]);
            }
            throw new Refusal(
                'This code opens nothing, or not any more. Ask your teacher for the one that works today.',
                'code',
            );
        }

        SchoolDay::know($found->school_id, $found->time_zone);

        return [
            new Records\Section($found->section_id, (int) $found->section_version, [
                'school_id' => $found->school_id,
                'name' => $found->name,
                'grade' => $found->grade,
                'state' => $found->section_state,
            ]),
            new Records\JoinCode($found->id, (int) $found->version, [
                'section_id' => $found->section_id,
                'state' => $found->state,
                'who' => $found->who,
                'starts_at' => $found->starts_at,
                'ends_at' => $found->ends_at,
                'cap' => $found->cap,
            ]),
        ];
    }

    /** @throws Refusal where something typed cannot be a code, saying which kind of mistake it is */
    public function symbols(string $typed): string
    {
        try {
            return CodeSymbols::parse($typed)->symbols;
        } catch (MalformedCode $e) {
            throw new Refusal($e->mistake->sentence(), 'code', ['symbol' => $e->symbol]);
        }
    }

    /**
     * By one account some tries a day; where many wrong codes came, hardly any.
     *
     * @throws TooManyRequestsHttpException
     */
    private function mustHaveTries(Request $request, string $account): void
    {
        $own = [Limit::CodeAccount, $account];
        [$tries, $address, $all] = $this->tries->counts($own, ...self::codes($request));
        if ($tries >= (self::areMany($address, $all) ? self::TRIES_AMONG_MANY : TryCounter::most(Limit::CodeAccount))) {
            $this->tries->refuse($own);
        }
    }

    /**
     * Whether so many wrong codes came, from this address or anywhere, that a right one may have been guessed: then
     * whoever comes by one without being signed in waits for a person to look, and is told the same by a wrong one.
     */
    public function manyCodes(Request $request): bool
    {
        [$address, $all] = $this->tries->counts(...self::codes($request));

        return self::areMany($address, $all);
    }

    private static function areMany(int $address, int $all): bool
    {
        return $address >= TryCounter::most(Limit::CodeAddress) || $all >= TryCounter::most(Limit::CodeInstallation);
    }

    /** @return list<array{Limit, string}> */
    private static function codes(Request $request): array
    {
        return [[Limit::CodeAddress, (string) $request->ip()], [Limit::CodeInstallation, '']];
    }

    /** How many students are in the section by this code. */
    public function cameIn(Records\JoinCode $code): int
    {
        return (int) DB::scalar('SELECT COUNT(*) FROM enrollments WHERE join_code_id = ? AND ends_on IS NULL', [
            $code->id,
        ]);
    }

    /**
     * Counts names looked for, or requests, against the code: who has the link can ask, but not without end.
     *
     * @throws TooManyRequestsHttpException
     */
    public function countNames(Records\JoinCode $code): void
    {
        $this->tries->take([Limit::NamesCode, $code->id]);
    }

    /**
     * A request made with the link of an invitation: by address alone, since there is no code.
     *
     * @throws TooManyRequestsHttpException
     */
    public function countAsking(Request $request): void
    {
        $limit = [Limit::AskAddress, (string) $request->ip()];
        $this->tries->take($limit);
    }

    /** @throws TooManyRequestsHttpException */
    public function countAsk(Request $request, Records\JoinCode $code): void
    {
        $limits = [[Limit::AskCode, $code->id], [Limit::AskAddress, (string) $request->ip()]];
        $this->tries->take(...$limits);
    }

    /**
     * Before a newcomer's proof is looked at, and given back where it was right: by student, by address, by code.
     *
     * @throws TooManyRequestsHttpException
     */
    public function takeProof(Request $request, Records\JoinCode $code, string $personId): void
    {
        $this->tries->take(...$this->proofLimits($request, $code, $personId));
    }

    public function giveBackProof(Request $request, Records\JoinCode $code, string $personId): void
    {
        $this->tries->giveBack(...$this->proofLimits($request, $code, $personId));
    }

    /** @return list<array{Limit, string}> */
    private function proofLimits(Request $request, Records\JoinCode $code, string $personId): array
    {
        return [
            [Limit::ProofStudent, $personId],
            [Limit::ProofAddress, (string) $request->ip()],
            [Limit::ProofCode, $code->id],
        ];
    }
}
