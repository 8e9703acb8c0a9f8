<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Accounts\SignInDesk;
use App\Guardians\GuardianLink;
use App\Guardians\Http\Wishes\AcceptWish;
use App\Guardians\TieReader;
use App\Guardians\Views\LinkAnswer;
use App\Guardians\Views\LinkView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person as PersonModel;
use App\Platform\Answers;
use App\Platform\Known;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\TokenWish;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Guardians\GuardianPolicy;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

/** A guardian with a link from the school: connects, or says that the children are not theirs. */
final readonly class GuardianLinkController
{
    public function __construct(
        private Ledger $ledger,
        private Snapshots $snapshots,
        private TieReader $ties,
        private PlannerKit $kit,
    ) {}

    #[Answers(LinkView::class, 'Whom a link asks to connect with whom')]
    #[Takes(TokenWish::class)]
    public function show(Request $request): LinkView
    {
        $link = $this->open(Wishes::of(TokenWish::class, $request)->token);

        return new LinkView(
            $link->school->name,
            $link->children(),
            $link->opens(),
            ($link->signIns[0] ?? null)?->userName() ?? $link->invitation->email(),
        );
    }

    #[Answers(LinkAnswer::class, 'Say that one is the guardian, with the account the link opens or has opened before')]
    #[Takes(AcceptWish::class)]
    public function accept(Request $request, SignInDesk $signIns): LinkAnswer
    {
        $wish = Wishes::of(AcceptWish::class, $request);
        $link = $this->open($wish->token);
        $password = null;
        if ($link->opens()) {
            PasswordRules::of('guardian', false)->mustTake((string) $wish->password, Known::passwords(), [
                $link->guardian->givenName(),
                $link->guardian->familyName(),
                $link->invitation->email(),
                $link->school->name,
            ]);
            $password = Hash::make((string) $wish->password);
        }
        $this->answer($link, $link->guardian, $password);
        if ($password !== null) {
            $signIn = DB::table('sign_ins')->where('person_id', $link->guardian->id)->orderBy('id')->value('id');
            $signIns->byNewSecret($request, PersonModel::query()->findOrFail($link->guardian->id), (string) $signIn);
        }

        return new LinkAnswer(TieReader::policy($link->school->id) === GuardianPolicy::Check, $password !== null);
    }

    #[Answers(LinkAnswer::class, 'Say that one is the guardian, with an account one has besides, such as a teacher’s')]
    #[Takes(TokenWish::class)]
    public function connect(Request $request): LinkAnswer
    {
        $link = $this->open(Wishes::of(TokenWish::class, $request)->token);
        $account =
            $this->snapshots->find(Person::class, PersonModel::signedIn($request)->id) ??
            throw new NotFoundHttpException();
        $this->answer($link, $account, null);

        return new LinkAnswer(TieReader::policy($link->school->id) === GuardianPolicy::Check, true);
    }

    #[Answers(null, 'Say that the children are not one’s own')]
    #[Takes(TokenWish::class)]
    public function decline(Request $request): Response
    {
        $link = $this->open(Wishes::of(TokenWish::class, $request)->token);
        $this->ledger->apply(
            Invites::decline($link->invitation, $link->links, $link->students, $link->guardian, $this->kit->now()),
            $link->school->id,
            null,
            Action::AskGuardian,
        );

        return response()->noContent();
    }

    private function open(string $token): GuardianLink
    {
        return GuardianLink::open($token, $this->snapshots, $this->ties, $this->kit);
    }

    private function answer(GuardianLink $link, Person $account, ?string $password): void
    {
        $same = $account->id === $link->guardian->id;
        $this->ledger->apply(
            Invites::accept(
                $link->invitation,
                $link->links,
                $link->students,
                $link->guardian,
                $account,
                $same
                    ? $link->signIns
                    : $this->snapshots->list(SignIn::class, fn($q) => $q->where('person_id', $account->id)),
                $this->snapshots->list(Guardianship::class, fn($q) => $q->where('guardian_id', $account->id)),
                DB::table('sign_ins')->where('user_name', $link->invitation->email())->exists(),
                $password,
                TieReader::policy($link->school->id),
                $this->kit->occasion($link->school->id),
            ),
            $link->school->id,
            PersonModel::query()->find($account->id),
            Action::AskGuardian,
            // Brothers and sisters go to several schools: the guardian’s own record may be kept at another one.
            also: [$link->guardian->schoolId()],
        );
    }
}
