<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\ResetMail;
use App\Models\Person;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\QrPath;
use App\Platform\Takes;
use App\Platform\Tries;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Mail;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\PasswordRules;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\SignIn\Limit;
use Vantrel\Core\SignIn\OwnPassword;

/** A person's own secrets: password, forgotten password, second factor. */
final class SecretController
{
    private const RESET_MINUTES = 60;

    public function __construct(private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit, private readonly SecondFactors $secondFactors, private readonly Tries $tries)
    {
    }

    #[Answers(Me::class, 'Set the own password; the one before is asked for unless the school has just asked to choose one')]
    #[Takes(['password' => 'string', 'current?' => 'string'])]
    public function password(Request $request): Me
    {
        $request->validate(['password' => 'required|string|max:256', 'current' => 'nullable|string|max:256']);
        $person = $this->person($request);
        $signIn = SignIn::query()->where('person_id', $person->id)->where('id', (string) $request->session()->get('sign_in'))->first()
            ?? SignIn::query()->where('person_id', $person->id)->orderBy('id')->firstOrFail();
        $asked = $request->session()->get(Finished::MUST) === 'password';
        if (! $asked) {
            $this->tries->guard([Limit::PasswordAgain, $person->id]);
            if ($signIn->password === null || ! Hash::check($request->string('current')->value(), $signIn->password)) {
                $this->tries->count([Limit::PasswordAgain, $person->id]);
                throw new Refusal('That is not your password now.', 'current');
            }
        }
        $this->set($signIn, $person, $request->string('password')->value(), $person);
        $request->session()->forget(Finished::MUST);
        $request->session()->regenerate();
        DB::table('sessions')->where('user_id', $person->id)->where('id', '!=', $request->session()->getId())->delete();

        return Me::of($person);
    }

    #[Answers(null, 'Send a link for a new password to the address on record; says the same whether there is one or not')]
    #[Takes(['user_name' => 'string'])]
    public function forgotten(Request $request): Response
    {
        $request->validate(['user_name' => 'required|string|max:254']);
        $userName = UserNames::fold($request->string('user_name')->value());
        $limits = [[Limit::ResetName, hash('sha256', $userName)], [Limit::ResetAddress, (string) $request->ip()]];
        try {
            $this->tries->guard(...$limits);
        } catch (TooManyRequestsHttpException) {
            return response()->noContent();
        }
        $this->tries->count(...$limits);
        $signIn = SignIn::query()->where('user_name', $userName)->first()
            ?? SignIn::query()->whereIn('person_id', fn ($q) => $q->select('id')->from('people')->where('email', $userName)->where('state', 'active')->where('kind', '!=', 'student'))->orderBy('id')->first();
        $person = $signIn === null ? null : Person::query()->find($signIn->person_id);
        if ($signIn !== null && $person !== null && $person->state === 'active' && $person->email !== null) {
            $token = Token::draw($this->kit->random($this->kit->seed().' reset'));
            DB::table('password_resets')->insert(['id' => $this->kit->seed(), 'sign_in_id' => $signIn->id, 'token_hash' => $token->hash(), 'expires_at' => now()->addMinutes(self::RESET_MINUTES)]);
            Mail::to($person->email)->send(new ResetMail($person->school_id, School::query()->findOrFail($person->school_id)->name, $signIn->user_name, rtrim((string) config('app.url'), '/').'/new-password/'.$token->plain, self::RESET_MINUTES));
        }

        return response()->noContent();
    }

    #[Answers(ResetView::class, 'Whether the link of a forgotten password works, and for whom')]
    public function reset(string $token): ResetView
    {
        return new ResetView(SignIn::query()->findOrFail($this->resetOf($token)->sign_in_id)->user_name);
    }

    #[Answers(null, 'Set a new password with the link of a mail; every session of the person ends')]
    #[Takes(['password' => 'string'])]
    public function useReset(string $token, Request $request): Response
    {
        $request->validate(['password' => 'required|string|max:256']);
        $signIn = SignIn::query()->findOrFail($this->resetOf($token)->sign_in_id);
        $person = Person::query()->findOrFail($signIn->person_id);
        $this->check($person, $signIn, $request->string('password')->value());
        // Taken first: two presses of the button set one password.
        if (DB::table('password_resets')->where('token_hash', Token::hashOf($token))->whereNull('used_at')->update(['used_at' => now()]) === 0) {
            throw new NotFoundHttpException;
        }
        $this->set($signIn, $person, $request->string('password')->value(), $person);
        DB::table('password_resets')->where('sign_in_id', $signIn->id)->whereNull('used_at')->update(['used_at' => now()]);
        DB::table('sessions')->where('user_id', $person->id)->delete();

        return response()->noContent();
    }

    #[Answers(SecondFactorView::class, 'Whether there is a second factor')]
    public function secondFactor(Request $request): SecondFactorView
    {
        $person = $this->person($request);

        return new SecondFactorView($this->secondFactors->has($person), $this->secondFactors->mustHave($person), $this->secondFactors->recoveryLeft($person), '', '', 0, []);
    }

    #[Answers(SecondFactorView::class, 'Begin with a second factor: the secret, to be confirmed with a first code')]
    public function beginSecondFactor(Request $request): SecondFactorView
    {
        $person = $this->person($request);
        $totp = $this->secondFactors->begin($person);
        $qr = QrPath::of($totp->uri('Vantrel', SignIn::query()->where('person_id', $person->id)->orderBy('id')->value('user_name') ?? $person->fullName()));

        return new SecondFactorView(false, $this->secondFactors->mustHave($person), 0, $totp->base32(), $qr->path, $qr->size, []);
    }

    #[Answers(SecondFactorView::class, 'Confirm it with the code the app shows; gives the recovery codes, this once')]
    #[Takes(['code' => 'string'])]
    public function confirmSecondFactor(Request $request): SecondFactorView
    {
        $request->validate(['code' => 'required|string|max:10']);
        $person = $this->person($request);
        $codes = $this->secondFactors->confirm($person, $request->string('code')->value());
        if ($request->session()->get(Finished::MUST) === 'second_factor') {
            $request->session()->forget(Finished::MUST);
        }

        return new SecondFactorView(true, $this->secondFactors->mustHave($person), count($codes), '', '', 0, $codes);
    }

    #[Answers(null, 'Remove the second factor, with a code of it')]
    #[Takes(['code' => 'string'])]
    public function removeSecondFactor(Request $request): Response
    {
        $request->validate(['code' => 'required|string|max:40']);
        $person = $this->person($request);
        $this->secondFactors->check($person, $request->string('code')->value());
        $this->secondFactors->remove($person);

        return response()->noContent();
    }

    private function resetOf(string $token): object
    {
        return DB::table('password_resets')->where('token_hash', Token::hashOf($token))->whereNull('used_at')->where('expires_at', '>', now())->first() ?? throw new NotFoundHttpException;
    }

    private function set(SignIn $signIn, Person $person, string $password, Person $actor): void
    {
        $this->check($person, $signIn, $password);
        $row = $this->snapshots->find(Entity::SignIn, $signIn->id) ?? throw new NotFoundHttpException;
        $this->ledger->apply(OwnPassword::set($row, Hash::make($password)), $person->school_id, $actor, 'password');
    }

    private function check(Person $person, SignIn $signIn, string $password): void
    {
        PasswordRules::of($person->kind, $this->secondFactors->has($person))->mustTake($password, [$person->given_name, $person->family_name, $signIn->user_name, School::query()->findOrFail($person->school_id)->name]);
    }

    private function person(Request $request): Person
    {
        /** @var Person $person */
        $person = $request->user();

        return $person;
    }
}
