<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use App\Models\SignIn;
use App\Models\StaffStanding;
use App\Platform\TryCounter;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Refusal;

/**
 * Opens sessions, each by one credential: a secret that is typed, the badge on a card, single sign-on, a room pass.
 * Wrong secrets are counted by account and by address; badges are long enough that one that works is never turned away
 * for the wrong ones.
 */
final class SignInDesk
{
    /** In the session while a second factor is awaited: who, by what, until when, how long to stay. */
    private const PENDING = 'second_factor_for';

    private const PENDING_SECONDS = 300;

    /**
     * A hash of nothing anybody has: a wrong secret takes as long whether a user name is unknown, has a passphrase or a
     * password.
     */
    private const DUMMY = '$2y$12$2n3dAEb4SrsB0l8yzeDTCu56Z2v9e3i5b0zEsvcBFQN0qAL8qIvVq';

    public function __construct(
        private readonly SecondFactors $secondFactors,
        private readonly TryCounter $tries,
        private readonly CredentialUses $uses,
    ) {}

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
        $device = KnownDevice::of($request, $userName);
        // Where somebody has signed in before, what others try elsewhere does not count against them.
        $account = $device !== null ? [Limit::SignInDevice, $device] : [Limit::SignInName, hash('sha256', $userName)];
        $this->tries->take($account);
        $elsewhere = $device === null ? $this->ofAddress($request, $account) : [];
        $signIn = SignIn::query()->where('user_name', $userName)->first();
        if ($signIn === null || !$this->fits($signIn, $secret)) {
            if ($signIn?->password === null) {
                Hash::check($secret, self::DUMMY);
            }
            throw new Refusal(
                'That user name and passphrase don’t match. Look at the card again, letter by letter.',
                'secret',
            );
        }
        $this->tries->right($account, $elsewhere);
        $person = $this->owner($signIn);
        $this->mustBeTheWay($person, $signIn);
        KnownDevice::remember($request, $userName);

        return $this->orSecondFactor($request, $person, $this->secretOf($signIn), $signIn, $stay);
    }

    /**
     * Takes a try of the address. Where it has none left somebody there is searching: each user name is still looked at
     * once a day, so that whoever types what is right is let in, and a search comes to one try for each name.
     *
     * @param  array{0: Limit, 1: string}  $account
     * @return list<array{Limit, string}> what is given back where the try is right
     */
    private function ofAddress(Request $request, array $account): array
    {
        $address = [Limit::SignInAddress, (string) $request->ip()];
        if ($this->tries->takes($address)) {
            return [$address];
        }
        $once = [Limit::SignInNameAddress, "$account[1] $address[1]"];
        try {
            $this->tries->take($once);
        } catch (TooManyRequestsHttpException $e) {
            $this->tries->giveBack($account);
            throw $e;
        }

        return [$once];
    }

    /** Whose second factor is awaited here; null where none is. */
    public function awaited(Request $request): ?string
    {
        $pending = $request->session()->get(self::PENDING);

        return is_array($pending) && ($pending['until'] ?? 0) >= now()->getTimestamp()
            ? (string) $pending['person']
            : null;
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
        if (!is_array($pending) || $this->awaited($request) === null) {
            throw new Refusal('That took too long. Sign in again from the start.');
        }
        $person = Person::query()->findOrFail((string) $pending['person']);
        $this->secondFactors->check($person, $code);

        return $this->complete($request, $person, $pending);
    }

    /** @param  array<string, mixed>  $pending */
    private function complete(Request $request, Person $person, array $pending): Person
    {
        $signIn = $pending['sign_in'] === null ? null : SignIn::query()->findOrFail((string) $pending['sign_in']);

        return $this->enter(
            $request,
            $person,
            new Opened(
                CredentialWay::from($pending['way']),
                (string) $pending['id'],
                (string) $pending['stamp'],
                true,
                now()->getTimestamp(),
            ),
            $signIn,
            (string) $pending['stay'],
        );
    }

    /**
     * @throws Refusal where the card is not one that works
     * @throws TooManyRequestsHttpException where there have been too many that do not
     */
    public function byBadge(Request $request, string $token): Person
    {
        [$badgeId, $signIn] = $this->badge($request, $token);

        return $this->enter(
            $request,
            $this->owner($signIn),
            new Opened(CredentialWay::Badge, $badgeId, '', false, now()->getTimestamp()),
            $signIn,
            '',
        );
    }

    /** Whose card it is, nobody signed in by it. */
    public function ownerOfBadge(Request $request, string $token): Person
    {
        return $this->owner($this->badge($request, $token)[1]);
    }

    /** @return Person|null who is in now; null where a code of the second factor is awaited */
    public function bySignOn(Request $request, Person $person, string $identityId): ?Person
    {
        return $this->orSecondFactor(
            $request,
            $person,
            new Opened(CredentialWay::SignOn, $identityId, '', false, now()->getTimestamp()),
            $this->first($person),
            '',
        );
    }

    /**
     * By a passkey that has just been shown: by itself, or as what a password begun here awaits. The device has asked
     * who is there, so it is both factors.
     */
    public function byPasskey(Request $request, Person $person, string $passkeyId): Person
    {
        $pending = $request->session()->get(self::PENDING);
        if (is_array($pending) && $this->awaited($request) === $person->id) {
            return $this->complete($request, $person, $pending);
        }

        return $this->enter(
            $request,
            $person,
            new Opened(CredentialWay::Passkey, $passkeyId, '', true, now()->getTimestamp()),
            $this->first($person),
            '',
        );
    }

    public function byRoomPass(Request $request, Person $person, string $passId): void
    {
        $this->enter(
            $request,
            $person,
            new Opened(CredentialWay::RoomPass, $passId, '', false, now()->getTimestamp()),
            $this->first($person),
            '',
        );
    }

    /** For somebody who has just set the secret of this sign-in: at the door, by an invitation. */
    public function byNewSecret(Request $request, Person $person, string $signInId): void
    {
        $signIn = SignIn::query()->findOrFail($signInId);
        $this->enter($request, $person, $this->secretOf($signIn), $signIn, '');
    }

    /** After an own secret has been changed in this session: it goes on, by the new one. */
    public function renew(Request $request, string $signInId): void
    {
        $opened = Opened::of($request->session());
        $now = $this->secretOf(SignIn::query()->findOrFail($signInId));
        (new Opened($now->way, $now->id, $now->stamp, $opened->factor ?? false, $now->at))->keep($request->session());
        $request->session()->put('sign_in', $signInId);
        $request->session()->forget(MustFinish::MUST);
        $request->session()->regenerate();
    }

    /** @return array{string, SignIn} id of the badge and whose it is */
    private function badge(Request $request, string $token): array
    {
        $found = DB::selectOne("SELECT id, sign_in_id FROM badges WHERE token_hash = ? AND state = 'live'", [
            Token::hashOf($token),
        ]);
        $signIn = $found === null ? null : SignIn::query()->where('id', $found->sign_in_id)->first();
        if ($found === null || $signIn === null) {
            $address = [Limit::CardAddress, (string) $request->ip()];
            $this->tries->take($address);
            throw new Refusal('This card does not work any more. Ask for a new one.');
        }

        return [(string) $found->id, $signIn];
    }

    private function orSecondFactor(
        Request $request,
        Person $person,
        Opened $opened,
        ?SignIn $signIn,
        string $stay,
    ): ?Person {
        if (StaffStanding::of($person)->hasSecondFactor) {
            $request->session()->put(self::PENDING, [
                'person' => $person->id,
                'way' => $opened->way->value,
                'id' => $opened->id,
                'stamp' => $opened->stamp,
                'sign_in' => $signIn?->id,
                'until' => now()->getTimestamp() + self::PENDING_SECONDS,
                'stay' => $stay,
            ]);

            return null;
        }

        return $this->enter($request, $person, $opened, $signIn, $stay);
    }

    private function enter(Request $request, Person $person, Opened $opened, ?SignIn $signIn, string $stay): Person
    {
        Auth::login($person);
        $session = $request->session();
        $session->regenerate();
        $session->forget([MustFinish::MUST, self::PENDING, SessionRows::UNTIL, 'sign_in']);
        $opened->keep($session);
        $this->uses->mark($request, $person, $opened, $signIn);
        $school = $person->school;
        $days = match ($stay) {
            'own' => $school->stay_days_own,
            'shared' => $school->stay_days_shared,
            default => 0,
        };
        if ($days > 0) {
            $session->put(SessionRows::UNTIL, now()->addDays($days)->getTimestamp());
        }
        if ($signIn !== null) {
            $session->put('sign_in', $signIn->id);
        }
        // Whoever came in by the school's sign-on or a room pass has no password to set.
        $byOwn =
            $signIn !== null &&
            in_array($opened->way, [CredentialWay::Password, CredentialWay::Passphrase, CredentialWay::Badge], true);
        if (
            $byOwn &&
            ($this->way($person)?->asksForOwn($signIn->password !== null) === true ||
                ((bool) $signIn->temporary && $opened->way === CredentialWay::Password))
        ) {
            $session->put(MustFinish::MUST, 'password');
        }

        return $person;
    }

    private function secretOf(SignIn $signIn): Opened
    {
        $way = $signIn->password !== null ? CredentialWay::Password : CredentialWay::Passphrase;

        return new Opened(
            $way,
            $signIn->id,
            Opened::stampOf($signIn->password ?? $signIn->passphrase),
            false,
            now()->getTimestamp(),
        );
    }

    private function first(Person $person): ?SignIn
    {
        /** @var SignIn|null */
        return SignIn::query()->where('person_id', $person->id)->orderBy('id')->first();
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
        $this->way($person)?->mustTakeSecret($signIn->password !== null);
    }

    private function way(Person $person): ?Way
    {
        return SignInPolicy::read($person->school->sign_in_policy)->wayOf(
            $person->kind,
            $person->state,
            $person->grade,
        );
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
