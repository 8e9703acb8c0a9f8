<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\Finished;
use App\Accounts\Jobs\SendReset;
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
use App\Platform\QrPath;
use App\Platform\Takes;
use App\Platform\Tries;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\OwnPassword;
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
        private readonly Tries $tries,
        private readonly PasswordAgain $passwordAgain,
    ) {}

    #[
        Answers(
            Me::class,
            'Set the own password; the one before is asked for unless the school has just asked to choose one',
        ),
    ]
    #[Takes(['password' => 'string', 'current?' => 'string'])]
    public function password(Request $request, SignInDesk $desk): Me
    {
        $request->validate(['password' => 'required|string|max:256', 'current' => 'nullable|string|max:256']);
        $person = $this->person($request);
        $signIn =
            SignIn::query()
                ->where('person_id', $person->id)
                ->where('id', (string) $request->session()->get('sign_in'))
                ->first() ?? SignIn::query()->where('person_id', $person->id)->orderBy('id')->firstOrFail();
        if ($request->session()->get(Finished::MUST) !== 'password') {
            $this->passwordAgain->mustBe(
                $person,
                $request->string('current')->value(),
                'That is not your password now.',
            );
        }
        $this->set($signIn, $person, $request->string('password')->value());
        $desk->renew($request, $signIn->id);
        DB::table('sessions')
            ->where('user_id', $person->id)
            ->where('id', '!=', $request->session()->getId())
            ->delete();
        AccountNotice::tell($person, 'Your password was changed', [
            "The password of {$signIn->user_name} was changed just now. All other devices are signed out.",
        ]);

        return Me::of($person);
    }

    #[
        Answers(
            null,
            'Send a link for a new password to the confirmed address; says the same, as fast, whether there ' .
                'is one or not',
        ),
    ]
    #[Takes(['user_name' => 'string'])]
    public function forgotten(Request $request): Response
    {
        $request->validate(['user_name' => 'required|string|max:254']);
        $address = [Limit::ResetAddress, (string) $request->ip()];
        $this->tries->guard($address);
        $this->tries->count($address);
        SendReset::dispatch(UserNames::fold($request->string('user_name')->value()));

        return response()->noContent();
    }

    #[Answers(ResetView::class, 'Whether the link of a mail for a new password works, and for whom')]
    #[Takes(['token' => 'string'])]
    public function reset(Request $request, ResetLinks $links): ResetView
    {
        $request->validate(['token' => 'required|string|max:64']);

        return new ResetView(
            SignIn::query()->findOrFail($links->find($request->string('token')->value())->sign_in_id)->user_name,
        );
    }

    #[Answers(null, 'Set a new password with the link of a mail; every session of the person ends')]
    #[Takes(['token' => 'string', 'password' => 'string'])]
    public function useReset(Request $request, ResetLinks $links): Response
    {
        $request->validate(['token' => 'required|string|max:64', 'password' => 'required|string|max:256']);
        $link = $links->find($request->string('token')->value());
        $signIn = SignIn::query()->findOrFail($link->sign_in_id);
        $person = Person::query()->findOrFail($signIn->person_id);
        if ($person->state !== 'active') {
            throw new NotFoundHttpException();
        }
        $this->check($person, $signIn, $request->string('password')->value());
        DB::transaction(function () use ($links, $link, $signIn, $person, $request): void {
            // Taken first: two presses of the button set one password.
            $links->take($link);
            $this->set($signIn, $person, $request->string('password')->value());
            $links->confirm($person, $link);
            DB::table('sessions')->where('user_id', $person->id)->delete();
        });

        return response()->noContent();
    }

    #[Answers(SecondFactorView::class, 'Whether there is a second factor')]
    public function secondFactor(Request $request): SecondFactorView
    {
        $person = $this->person($request);

        return new SecondFactorView(
            $this->secondFactors->has($person),
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
    #[Takes(['current?' => 'string'])]
    public function beginSecondFactor(Request $request): SecondFactorView
    {
        $request->validate(['current' => 'nullable|string|max:256']);
        $person = $this->person($request);
        if (!$this->passwordAgain->justSignedIn($request)) {
            $this->passwordAgain->mustBe(
                $person,
                $request->string('current')->value(),
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
            false,
            $this->secondFactors->mustHave($person),
            0,
            $totp->base32(),
            $qr->path,
            $qr->size,
            [],
        );
    }

    #[Answers(SecondFactorView::class, 'Confirm it with the code the app shows; gives the recovery codes, this once')]
    #[Takes(['code' => 'string'])]
    public function confirmSecondFactor(Request $request): SecondFactorView
    {
        $request->validate(['code' => 'required|string|max:10']);
        $person = $this->person($request);
        $codes = $this->secondFactors->confirm($person, $request->string('code')->value());
        $opened = Opened::of($request->session());
        if ($opened !== null) {
            (new Opened($opened->way, $opened->id, $opened->stamp, true, $opened->at))->keep($request->session());
        }
        DB::table('sessions')
            ->where('user_id', $person->id)
            ->where('id', '!=', $request->session()->getId())
            ->delete();
        AccountNotice::tell($person, 'A second factor was set up', [
            'From now on, signing in takes a code of the authenticator app besides the password.',
        ]);

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
        AccountNotice::tell($person, 'The second factor was removed', ['Signing in takes the password alone again.']);

        return response()->noContent();
    }

    private function set(SignIn $signIn, Person $person, string $password): void
    {
        $this->check($person, $signIn, $password);
        $row = $this->snapshots->find(Records\SignIn::class, $signIn->id) ?? throw new NotFoundHttpException();
        $this->ledger->apply(
            OwnPassword::set($row, Hash::make($password)),
            $person->school_id,
            $person,
            Action::Password,
        );
        // No link that is under way outlives a new password.
        ResetLinks::closeAll($person->id);
    }

    private function check(Person $person, SignIn $signIn, string $password): void
    {
        PasswordRules::of($person->kind, $this->secondFactors->has($person))->mustTake($password, [
            $person->given_name,
            $person->family_name,
            $signIn->user_name,
            School::query()->findOrFail($person->school_id)->name,
        ]);
    }

    private function person(Request $request): Person
    {
        /** @var Person $person */
        $person = $request->user();

        return $person;
    }
}
