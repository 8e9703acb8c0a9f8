<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\CredentialWay;
use App\Accounts\Http\Wishes\CurrentPasswordWish;
use App\Accounts\Http\Wishes\MadePasskeyWish;
use App\Accounts\Http\Wishes\ShownPasskeyWish;
use App\Accounts\Opened;
use App\Accounts\Passkeys;
use App\Accounts\PasswordAgain;
use App\Accounts\SignInDesk;
use App\Accounts\Views\Me;
use App\Accounts\Views\PasskeyLine;
use App\Accounts\Views\PasskeyPage;
use App\Accounts\Views\PasskeyQuestion;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\RelyingParty;

/** Passkeys of whoever is signed in, and signing in with one (W3C Web Authentication). */
final class PasskeyController
{
    public function __construct(private readonly Passkeys $passkeys, private readonly PasswordAgain $passwordAgain) {}

    #[Answers(PasskeyPage::class, 'The own passkeys')]
    public function index(Request $request): PasskeyPage
    {
        return $this->page(Person::signedIn($request));
    }

    #[
        Answers(
            PasskeyQuestion::class,
            'Begin with a passkey: what the browser is asked to make; takes the password again',
        ),
    ]
    #[Takes(CurrentPasswordWish::class)]
    public function ask(Request $request): PasskeyQuestion
    {
        $person = Person::signedIn($request);
        $this->mustBeThemselves($request, $person);

        return new PasskeyQuestion(
            $this->passkeys->ask($request),
            $this->passkeys->party()->id,
            $this->passkeys->idsOf($person->id),
            RelyingParty::ALGORITHMS,
            RelyingParty::encode($person->id),
            SignIn::query()->where('person_id', $person->id)->orderBy('id')->value('user_name') ?? $person->fullName(),
            $person->fullName(),
        );
    }

    #[
        Answers(
            PasskeyPage::class,
            'Keep the passkey the browser has made; the first second factor brings recovery codes, shown this once',
        ),
    ]
    #[Takes(MadePasskeyWish::class)]
    public function store(Request $request): PasskeyPage
    {
        $person = Person::signedIn($request);
        $recovery = $this->passkeys->make($request, $person, Wishes::of(MadePasskeyWish::class, $request));
        $opened = Opened::of($request->session());
        if ($opened !== null) {
            (new Opened($opened->way, $opened->id, $opened->stamp, true, $opened->at))->keep($request->session());
        }

        return $this->page($person, $recovery);
    }

    #[Answers(PasskeyPage::class, 'End one of the own passkeys; takes the password again')]
    #[Takes(CurrentPasswordWish::class)]
    public function end(string $passkey, Request $request): PasskeyPage
    {
        $person = Person::signedIn($request);
        $this->passkeys->mustBeOf($person, $passkey);
        $this->mustBeThemselves($request, $person);
        $name = $this->passkeys->end($person, $passkey, true);
        AccountNotice::toStaff($person, 'A passkey was removed', [
            "The passkey “{$name}” does not sign in to your account any more.",
        ]);

        return $this->page($person);
    }

    #[
        Answers(
            PasskeyQuestion::class,
            'What the browser is asked, to show a passkey: any of this address, or one of whoever has just typed ' .
                'their password',
        ),
    ]
    public function askToShow(Request $request, SignInDesk $desk): PasskeyQuestion
    {
        $awaited = $desk->awaited($request);

        return new PasskeyQuestion(
            $this->passkeys->ask($request),
            $this->passkeys->party()->id,
            $awaited === null ? [] : $this->passkeys->idsOf($awaited),
            [],
            '',
            '',
            '',
        );
    }

    #[Answers(Me::class, 'Sign in with a passkey, instead of a password or after one')]
    #[Takes(ShownPasskeyWish::class)]
    public function show(Request $request, SignInDesk $desk): Me
    {
        [$person, $id] = $this->passkeys->show($request, Wishes::of(ShownPasskeyWish::class, $request));

        return Me::of($desk->byPasskey($request, $person, $id));
    }

    /** @param  list<string>  $recovery */
    private function page(Person $person, array $recovery = []): PasskeyPage
    {
        return new PasskeyPage(
            array_values(
                DB::table('passkeys as p')
                    ->leftJoin(
                        'credential_uses as u',
                        fn(JoinClause $j) => $j
                            ->on('u.credential_id', '=', 'p.id')
                            ->on('u.person_id', '=', 'p.person_id')
                            ->where('u.way', CredentialWay::Passkey->value),
                    )
                    ->where('p.person_id', $person->id)
                    ->orderBy('p.id')
                    ->get(['p.id', 'p.name', 'p.made_at', 'u.last_at'])
                    ->map(
                        fn(object $p): PasskeyLine => new PasskeyLine(
                            $p->id,
                            $p->name,
                            Instant::iso($p->made_at),
                            Instant::isoOrNull($p->last_at),
                        ),
                    )
                    ->all(),
            ),
            RelyingParty::at((string) config('app.url'))->origin ?? '',
            $recovery,
        );
    }

    private function mustBeThemselves(Request $request, Person $person): void
    {
        if (!$this->passwordAgain->justSignedIn($request)) {
            $this->passwordAgain->mustBe(
                $person,
                Wishes::of(CurrentPasswordWish::class, $request)->current,
                'Type your password once more: whoever sets this up decides who can sign in.',
            );
        }
    }
}
