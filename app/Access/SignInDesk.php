<?php

declare(strict_types=1);

namespace App\Access;

use App\Models\Person;
use App\Models\SignIn;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\PassphraseSheet;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Plan\Refusal;

/** Lets people in: by user name and secret, or by the badge on a card. Failures are counted by account and by address. */
final class SignInDesk
{
    private const TRIES_PER_ACCOUNT = 10;

    private const TRIES_PER_ADDRESS = 100;

    private const WINDOW = 900;

    /** A hash of nothing anybody has: an unknown user name takes as long as a known one. */
    private const DUMMY = '$2y$12$2n3dAEb4SrsB0l8yzeDTCu56Z2v9e3i5b0zEsvcBFQN0qAL8qIvVq';

    /**
     * @throws Refusal with one sentence for every kind of failure
     * @throws TooManyRequestsHttpException
     */
    public function byName(Request $request, string $userName, string $secret): Person
    {
        $userName = UserNames::fold($userName);
        $account = 'sign-in|'.hash('sha256', $userName);
        $this->guard($request, $account);
        $signIn = SignIn::query()->where('user_name', $userName)->first();
        if ($signIn === null || ! $this->fits($signIn, $secret)) {
            if ($signIn === null) {
                Hash::check($secret, self::DUMMY);
            }
            $this->failed($request, $account);
            throw new Refusal('That user name and that passphrase do not belong together. Look at the card again, letter by letter.', 'secret');
        }
        RateLimiter::clear($account);

        return $this->enter($request, $signIn);
    }

    /**
     * @throws Refusal where the card is not one that works
     * @throws TooManyRequestsHttpException
     */
    public function byBadge(Request $request, string $token): Person
    {
        $this->guard($request, null);
        $id = DB::table('badges')->where('token_hash', Token::hashOf($token))->where('state', 'live')->value('sign_in_id');
        $signIn = $id === null ? null : SignIn::query()->find($id);
        if ($signIn === null) {
            $this->failed($request, null);
            throw new Refusal('This card does not work any more. Ask for a new one.');
        }

        return $this->enter($request, $signIn);
    }

    public function login(Request $request, Person $person): void
    {
        Auth::login($person);
        $request->session()->regenerate();
    }

    private function enter(Request $request, SignIn $signIn): Person
    {
        $person = Person::query()->findOrFail($signIn->person_id);
        if ($person->state !== 'active') {
            throw new Refusal('This account is closed: its owner has left the school. Ask the school office.');
        }
        // Not a change of the job, so not in the ledger and without a new version.
        DB::table('sign_ins')->where('id', $signIn->id)->update(['last_signed_in_at' => now()]);
        $this->login($request, $person);

        return $person;
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

    /** @throws TooManyRequestsHttpException */
    private function guard(Request $request, ?string $account): void
    {
        foreach ([[$account, self::TRIES_PER_ACCOUNT], [$this->address($request), self::TRIES_PER_ADDRESS]] as [$key, $most]) {
            if ($key !== null && RateLimiter::tooManyAttempts($key, $most)) {
                throw new TooManyRequestsHttpException(RateLimiter::availableIn($key), 'Too many tries.');
            }
        }
    }

    private function failed(Request $request, ?string $account): void
    {
        if ($account !== null) {
            RateLimiter::hit($account, self::WINDOW);
        }
        RateLimiter::hit($this->address($request), self::WINDOW);
    }

    private function address(Request $request): string
    {
        return 'sign-in-from|'.$request->ip();
    }
}
