<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\Http\Wishes\CurrentPasswordWish;
use App\Accounts\Http\Wishes\FactorCodeWish;
use App\Accounts\Http\Wishes\FirstCodeWish;
use App\Accounts\Http\Wishes\ForgottenWish;
use App\Accounts\Http\Wishes\NewPasswordWish;
use App\Accounts\Http\Wishes\OwnPasswordWish;
use App\Accounts\Jobs\SendReset;
use App\Accounts\MustFinish;
use App\Accounts\Opened;
use App\Accounts\PasswordAgain;
use App\Accounts\ResetLinks;
use App\Accounts\SecondFactors;
use App\Accounts\SignInDesk;
use App\Accounts\Views\Me;
use App\Accounts\Views\ResetView;
use App\Accounts\Views\SecondFactorView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\Known;
use App\Platform\QrPath;
use App\Platform\Takes;
use App\Platform\TokenWish;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\OwnSecrets;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;

/** A person's own secrets: password, forgotten password, second factor. */
final class SecretController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly SecondFactors $secondFactors,
        private readonly TryCounter $tries,
        private readonly PasswordAgain $passwordAgain,
    ) {}

    #[
        Answers(
            Me::class,
            'Set the own password; the one before is asked for unless the school has just asked to choose one',
        ),
    ]
    #[Takes(OwnPasswordWish::class)]
    public function password(Request $request, SignInDesk $desk): Me
    {
        $wish = Wishes::of(OwnPasswordWish::class, $request);
        $person = Person::signedIn($request);
        $signIn =
            SignIn::query()
                ->where('person_id', $person->id)
                ->where('id', (string) $request->session()->get('sign_in'))
                ->first() ?? SignIn::query()->where('person_id', $person->id)->orderBy('id')->firstOrFail();
        if ($request->session()->get(MustFinish::MUST) !== 'password') {
            $this->passwordAgain->mustBe($person, $wish->current, 'That is not your password now.');
        }
        $this->set($signIn, $person, $wish->password);
        $desk->renew($request, $signIn->id);
        DB::table('sessions')
            ->where('user_id', $person->id)
            ->where('id', '!=', $request->session()->getId())
            ->delete();
        AccountNotice::tell($person, 'password', ['user' => $signIn->user_name]);

        return Me::of($person);
    }

    #[
        Answers(
            null,
            'Send a link for a new password to the confirmed address; says the same, as fast, whether there ' .
                'is one or not',
        ),
    ]
    #[Takes(ForgottenWish::class)]
    public function forgotten(Request $request): Response
    {
        $wish = Wishes::of(ForgottenWish::class, $request);
        $address = [Limit::ResetAddress, (string) $request->ip()];
        $this->tries->take($address);
        SendReset::dispatch(UserNames::fold($wish->userName));

        return response()->noContent();
    }

    #[Answers(ResetView::class, 'Whether the link of a mail for a new password works, and for whom')]
    #[Takes(TokenWish::class)]
    public function reset(Request $request, ResetLinks $links): ResetView
    {
        $wish = Wishes::of(TokenWish::class, $request);

        return new ResetView(SignIn::query()->findOrFail($links->find($wish->token)->sign_in_id)->user_name);
    }

    #[Answers(null, 'Set a new password with the link of a mail; every session of the person ends')]
    #[Takes(NewPasswordWish::class)]
    public function useReset(Request $request, ResetLinks $links): Response
    {
        $wish = Wishes::of(NewPasswordWish::class, $request);
        $link = $links->find($wish->token);
        $signIn = SignIn::query()->findOrFail($link->sign_in_id);
        $person = Person::query()->findOrFail($signIn->person_id);
        if ($person->state !== 'active') {
            throw new NotFoundHttpException();
        }
        $this->check($person, $signIn, $wish->password);
        DB::transaction(function () use ($links, $link, $signIn, $person, $wish): void {
            // Taken first: two presses of the button set one password.
            $links->take($link);
            $this->set($signIn, $person, $wish->password);
            $links->confirm($person, $link);
            DB::table('sessions')->where('user_id', $person->id)->delete();
        });

        return response()->noContent();
    }

    #[Answers(SecondFactorView::class, 'Whether there is a second factor, and an app among it')]
    public function secondFactor(Request $request): SecondFactorView
    {
        $person = Person::signedIn($request);

        return new SecondFactorView(
            $this->secondFactors->has($person),
            $this->secondFactors->hasApp($person),
            $this->secondFactors->hasPasskey($person),
            $this->secondFactors->mustHave($person),
            $this->secondFactors->recoveryLeft($person),
            '',
            '',
            0,
            [],
        );
    }

    #[
        Answers(
            SecondFactorView::class,
            'Begin with a second factor: the secret, to be confirmed with a first code; takes the password again',
        ),
    ]
    #[Takes(CurrentPasswordWish::class)]
    public function beginSecondFactor(Request $request): SecondFactorView
    {
        $wish = Wishes::of(CurrentPasswordWish::class, $request);
        $person = Person::signedIn($request);
        if (!$this->passwordAgain->justSignedIn($request)) {
            $this->passwordAgain->mustBe(
                $person,
                $wish->current,
                'Type your password once more: whoever sets this up decides who can sign in.',
            );
        }
        $totp = $this->secondFactors->begin($person);
        $qr = QrPath::of(
            $totp->uri(
                'Vantrel',
                SignIn::query()->where('person_id', $person->id)->orderBy('id')->value('user_name') ??
                    $person->fullName(),
            ),
        );

        return new SecondFactorView(
            $this->secondFactors->has($person),
            false,
            $this->secondFactors->hasPasskey($person),
            $this->secondFactors->mustHave($person),
            $this->secondFactors->recoveryLeft($person),
            $totp->base32(),
            $qr->path,
            $qr->size,
            [],
        );
    }

    #[
        Answers(
            SecondFactorView::class,
            'Confirm it with the code the app shows; gives the recovery codes, this once, where there were none',
        ),
    ]
    #[Takes(FirstCodeWish::class)]
    public function confirmSecondFactor(Request $request): SecondFactorView
    {
        $wish = Wishes::of(FirstCodeWish::class, $request);
        $person = Person::signedIn($request);
        $codes = $this->secondFactors->confirm($person, $wish->code);
        $opened = Opened::of($request->session());
        if ($opened !== null) {
            (new Opened($opened->way, $opened->id, $opened->stamp, true, $opened->at))->keep($request->session());
        }
        DB::table('sessions')
            ->where('user_id', $person->id)
            ->where('id', '!=', $request->session()->getId())
            ->delete();
        AccountNotice::toStaff($person, 'A second factor was set up', [
            'From now on, signing in takes a code of the authenticator app besides the password.',
        ]);

        return new SecondFactorView(
            true,
            true,
            $this->secondFactors->hasPasskey($person),
            $this->secondFactors->mustHave($person),
            $this->secondFactors->recoveryLeft($person),
            '',
            '',
            0,
            $codes,
        );
    }

    #[Answers(null, 'Remove the second factor, with a code of it')]
    #[Takes(FactorCodeWish::class)]
    public function removeSecondFactor(Request $request): Response
    {
        $wish = Wishes::of(FactorCodeWish::class, $request);
        $person = Person::signedIn($request);
        $this->secondFactors->check($person, $wish->code);
        $this->secondFactors->remove($person, true);
        AccountNotice::toStaff($person, 'The second factor was removed', [
            $this->secondFactors->has($person)
                ? 'The app shows no codes for this account any more; your passkeys go on working.'
                : 'Signing in takes the password alone again.',
        ]);

        return response()->noContent();
    }

    private function set(SignIn $signIn, Person $person, string $password): void
    {
        $this->check($person, $signIn, $password);
        $row = $this->snapshots->find(Records\SignIn::class, $signIn->id) ?? throw new NotFoundHttpException();
        $this->ledger->apply(
            OwnSecrets::set($row, Hash::make($password)),
            $person->school_id,
            $person,
            Action::Password,
        );
        // No link that is under way outlives a new password.
        ResetLinks::closeAll($person->id);
    }

    private function check(Person $person, SignIn $signIn, string $password): void
    {
        PasswordRules::of($person->kind, $this->secondFactors->has($person))->mustTake($password, Known::passwords(), [
            $person->given_name,
            $person->family_name,
            $signIn->user_name,
            School::query()->findOrFail($person->school_id)->name,
        ]);
    }
}
