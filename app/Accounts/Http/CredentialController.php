<?php

declare(strict_types=1);

namespace App\Accounts\Http;

use App\Accounts\CredentialDesk;
use App\Accounts\CredentialReader;
use App\Accounts\FirstSlip;
use App\Accounts\Http\Wishes\EndCredentialWish;
use App\Accounts\Http\Wishes\KeyboardWish;
use App\Accounts\Http\Wishes\OffBoardWish;
use App\Accounts\PasswordAgain;
use App\Accounts\ResetLinks;
use App\Accounts\Views\CredentialPage;
use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\Models\AccountReach;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;

/** Every way to sign in of a person, for the coordinators of their school. */
final class CredentialController
{
    public function __construct(
        private readonly CredentialDesk $desk,
        private readonly Ledger $ledger,
        private readonly CredentialReader $reader,
        private readonly PlannerKit $kit,
        private readonly PasswordAgain $passwordAgain,
    ) {}

    #[
        Answers(
            CredentialPage::class,
            'Every way to sign in of a person: when it was issued and by whom, when and where it was used last',
        ),
    ]
    public function index(Person $person): CredentialPage
    {
        return $this->reader->page($person, '');
    }

    #[
        Answers(
            CredentialPage::class,
            'End one of them; sessions it opened end with the next request. A second factor takes the ' .
                'password of whoever ends it, unless they have just signed in',
        ),
    ]
    #[Takes(EndCredentialWish::class, KeyboardWish::class)]
    public function end(Person $person, Request $request): CredentialPage
    {
        AccountReach::mustNotCoordinateBeyond(Person::signedIn($request), $person);
        $wish = Wishes::of(EndCredentialWish::class, $request);
        if ($wish->kind->isFactor()) {
            $this->mustBeAtTheKeyboard($request);
        }

        return $this->reader->page(
            $person,
            $this->desk->end($person, $wish->kind, $wish->id, Person::signedIn($request)),
        );
    }

    #[Answers(CredentialPage::class, 'End every way to sign in of a person, and every session')]
    public function endAll(Person $person, Request $request): CredentialPage
    {
        AccountReach::mustNotCoordinateBeyond(Person::signedIn($request), $person);

        return $this->reader->page($person, $this->desk->endAll($person, Person::signedIn($request)));
    }

    #[
        Answers(
            CredentialPage::class,
            'Send a link to the address on record, by which its owner chooses a password and confirms the address',
        ),
    ]
    public function sendLink(Person $person, Request $request, ResetLinks $links, Snapshots $snapshots): CredentialPage
    {
        AccountReach::mustBeHeldBy(Person::signedIn($request), $person);
        [$signIn, $to] = Credentials::linkTo(
            $snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException(),
            $snapshots->list(Records\SignIn::class, fn(Builder $q): Builder => $q->where('person_id', $person->id)),
        );
        $links->send($person, SignIn::query()->findOrFail($signIn->id), $to, Lifetime::LinkSent);

        return $this->reader->page($person, "A link is on its way to $to. It works for seven days, once.");
    }

    #[Answers('file', 'Print a slip with a password for the first sign-in, for somebody whom no mail reaches')]
    public function slip(Person $person, Request $request, FirstSlip $slip): Response
    {
        AccountReach::mustBeHeldBy(Person::signedIn($request), $person);

        return response($slip->print($person, Person::signedIn($request)), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="slip.pdf"',
            'Cache-Control' => 'no-store, private',
        ]);
    }

    #[
        Answers(
            PlanView::class,
            'What would end if somebody left the staff, and which sections would be left without a lead',
        ),
    ]
    #[Takes(OffBoardWish::class)]
    public function planOffBoarding(Person $person, Request $request): PlanView
    {
        AccountReach::mustNotCoordinateBeyond(Person::signedIn($request), $person);
        $wish = Wishes::of(OffBoardWish::class, $request);
        $seed = $this->kit->seed();

        return PlanView::of($this->desk->offBoarding($person, $wish->to, $seed), $seed, Action::OffBoard);
    }

    #[Answers(CredentialPage::class, 'Do it, as looked at; takes the password of whoever does it')]
    #[Takes(OffBoardWish::class, AsSeen::class, KeyboardWish::class)]
    public function offBoard(Person $person, Request $request): CredentialPage
    {
        AccountReach::mustNotCoordinateBeyond(Person::signedIn($request), $person);
        $wish = Wishes::of(OffBoardWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        if ($person->id === Person::signedIn($request)->id) {
            throw new Refusal('Somebody else has to see you off: you would end your own session half-way.');
        }
        $this->mustBeAtTheKeyboard($request);
        $to = $wish->to;
        $sentence = $this->ledger->holding(
            ['people' => array_values(array_filter([$person->id, $to]))],
            function () use ($person, $request, $seen, $to): string {
                $plan = $this->desk->offBoarding($person, $to, $this->kit->fresh($seen->seed));
                $seen->mustBe($plan, $person->fullName());
                $this->desk->offBoard($person, $plan, Person::signedIn($request));

                return $plan->sentence;
            },
        );

        return $this->reader->page(Person::query()->findOrFail($person->id), $sentence);
    }

    private function mustBeAtTheKeyboard(Request $request): void
    {
        if (!$this->passwordAgain->justSignedIn($request)) {
            $this->passwordAgain->mustBe(
                Person::signedIn($request),
                Wishes::of(KeyboardWish::class, $request)->password,
                'This takes your password, and this is not it.',
                'password',
            );
        }
    }
}
