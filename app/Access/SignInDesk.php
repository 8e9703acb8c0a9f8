<?php

declare(strict_types=1);

namespace App\Access;

use App\Models\Person;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\SessionRows;
use App\Platform\Tries;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\PassphraseSheet;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\SignIn\Limit;
use Vantrel\Core\SignIn\SignInPolicy;
use Vantrel\Core\SignIn\Way;

/** Lets people in: by user name and secret, or by the badge on a card. Failures are counted by account and by address. */
final class SignInDesk
{
    /** In the session while a second factor is awaited: who, by which sign-in, until when, how long to stay. */
    private const PENDING = 'second_factor_for';

    private const PENDING_SECONDS = 300;

    /** A hash of nothing anybody has: a wrong secret takes as long whether a user name is unknown, has a passphrase or a password. */
    private const DUMMY = '$2y$12$2n3dAEb4SrsB0l8yzeDTCu56Z2v9e3i5b0zEsvcBFQN0qAL8qIvVq';

    public function __construct(private readonly SecondFactors $secondFactors, private readonly Tries $tries)
    {
    }

    /**
     * @param  string  $stay own or shared device to stay signed in on, '' not to stay
     * @return Person|null who is in now; null where a code of the second factor is awaited
     *
     * @throws Refusal with one sentence for every kind of failure
     * @throws TooManyRequestsHttpException
     */
    public function byName(Request $request, string $userName, string $secret, string $stay): ?Person
    {
        $userName = UserNames::fold($userName);
        $account = [Limit::SignInName, hash('sha256', $userName)];
        $address = [Limit::SignInAddress, (string) $request->ip()];
        $this->tries->guard($account, $address);
        $signIn = SignIn::query()->where('user_name', $userName)->first();
        if ($signIn === null || ! $this->fits($signIn, $secret)) {
            if ($signIn?->password === null) {
                Hash::check($secret, self::DUMMY);
            }
            $this->tries->count($account, $address);
            throw new Refusal('That user name and that passphrase do not belong together. Look at the card again, letter by letter.', 'secret');
        }
        $this->tries->clear(...$account);
        $person = $this->owner($signIn);
        $this->mustBeTheWay($person, $signIn);
        if ($this->secondFactors->has($person)) {
            $request->session()->put(self::PENDING, ['person' => $person->id, 'sign_in' => $signIn->id, 'until' => now()->getTimestamp() + self::PENDING_SECONDS, 'stay' => $stay]);

            return null;
        }

        return $this->enter($request, $person, $signIn, $stay);
    }

    /**
     * The second half of a sign-in that awaits a code.
     *
     * @throws Refusal
     * @throws TooManyRequestsHttpException
     */
    public function bySecondFactor(Request $request, string $code): Person
    {
        $pending = $request->session()->get(self::PENDING);
        if (! is_array($pending) || ($pending['until'] ?? 0) < now()->getTimestamp()) {
            throw new Refusal('That took too long. Sign in again from the start.');
        }
        $person = Person::query()->findOrFail((string) $pending['person']);
        $this->secondFactors->check($person, $code);
        $request->session()->forget(self::PENDING);

        return $this->enter($request, $person, SignIn::query()->findOrFail((string) $pending['sign_in']), (string) $pending['stay']);
    }

    /**
     * @throws Refusal where the card is not one that works
     * @throws TooManyRequestsHttpException
     */
    public function byBadge(Request $request, string $token): Person
    {
        $address = [Limit::SignInAddress, (string) $request->ip()];
        $this->tries->guard($address);
        $id = DB::table('badges')->where('token_hash', Token::hashOf($token))->where('state', 'live')->value('sign_in_id');
        $signIn = $id === null ? null : SignIn::query()->find($id);
        if ($signIn === null) {
            $this->tries->count($address);
            throw new Refusal('This card does not work any more. Ask for a new one.');
        }

        return $this->enter($request, $this->owner($signIn), $signIn, '');
    }

    /**
     * For whoever has shown who they are in another way: an invitation, a request that was answered, the room pass, single sign-on.
     * The account counts as used from then on: nobody else can take it at the door.
     */
    public function login(Request $request, Person $person): void
    {
        $signIn = SignIn::query()->where('person_id', $person->id)->orderBy('id')->first();
        if ($signIn !== null) {
            // Not a change of the job, so not in the ledger and without a new version.
            DB::table('sign_ins')->where('id', $signIn->id)->update(['last_signed_in_at' => now()]);
        }
        $this->open($request, $person);
    }

    private function open(Request $request, Person $person): void
    {
        Auth::login($person);
        $request->session()->regenerate();
        $request->session()->forget([RoomSession::KEY, Finished::MUST, self::PENDING, SessionRows::UNTIL]);
    }

    private function enter(Request $request, Person $person, SignIn $signIn, string $stay): Person
    {
        DB::table('sign_ins')->where('id', $signIn->id)->update(['last_signed_in_at' => now()]);
        $this->open($request, $person);
        $school = School::query()->findOrFail($person->school_id);
        $days = match ($stay) {
            'own' => $school->stay_days_own,
            'shared' => $school->stay_days_shared,
            default => 0,
        };
        if ($days > 0) {
            $request->session()->put(SessionRows::UNTIL, now()->addDays($days)->getTimestamp());
        }
        $request->session()->put('sign_in', $signIn->id);
        $must = match (true) {
            $this->way($person, $school)?->asksForOwn($signIn->password !== null) === true => 'password',
            $this->secondFactors->mustHave($person) && ! $this->secondFactors->has($person) => 'second_factor',
            default => null,
        };
        if ($must !== null) {
            $request->session()->put(Finished::MUST, $must);
        }

        return $person;
    }

    private function owner(SignIn $signIn): Person
    {
        $person = Person::query()->findOrFail($signIn->person_id);
        if ($person->state !== 'active' && $person->state !== 'reserve') {
            throw new Refusal('This account is closed: its owner has left the school. Ask the school office.');
        }

        return $person;
    }

    /** Said only to someone who has the right secret: it tells nobody else how an account signs in. */
    private function mustBeTheWay(Person $person, SignIn $signIn): void
    {
        $this->way($person, School::query()->findOrFail($person->school_id))?->mustTakeSecret($signIn->password !== null);
    }

    private function way(Person $person, School $school): ?Way
    {
        return SignInPolicy::read($school->sign_in_policy)->wayOf($person->kind, $person->state, $person->grade);
    }

    private function fits(SignIn $signIn, string $secret): bool
    {
        if ($signIn->password !== null) {
            return Hash::check($secret, $signIn->password);
        }
        if ($signIn->passphrase === null) {
            return false;
        }
        try {
            return hash_equals(Crypt::decryptString($signIn->passphrase), PassphraseSheet::fold($secret));
        } catch (DecryptException) {
            return false;
        }
    }
}
