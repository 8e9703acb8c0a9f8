<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\GuardianDesk;
use App\Guardians\GuardianList;
use App\Guardians\Http\Wishes\AgainWish;
use App\Guardians\Http\Wishes\ConsentWish;
use App\Guardians\Http\Wishes\GuardiansWish;
use App\Guardians\Http\Wishes\InviteWish;
use App\Guardians\Http\Wishes\RestrictWish;
use App\Guardians\Http\Wishes\TiesWish;
use App\Guardians\InviteDesk;
use App\Guardians\TieReader;
use App\Guardians\Views\GuardianCounts;
use App\Guardians\Views\GuardianPage;
use App\Guardians\Views\InviteOutlook;
use App\Guardians\Views\InviteRunLine;
use App\Guardians\Views\InviteRuns;
use App\Guardians\Views\Said;
use App\Models\InviteRun;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Vantrel\Core\Records\Guardianship;

/** The guardians of a school: how each stands with each child, and what a coordinator does about it. */
final readonly class GuardianController
{
    public function __construct(
        private GuardianList $list,
        private GuardianDesk $desk,
        private InviteDesk $invites,
        private TieReader $ties,
    ) {}

    #[Answers(GuardianPage::class, 'Guardians of a school, a line for each child of each')]
    #[Takes(GuardiansWish::class)]
    public function index(School $school, Request $request): GuardianPage
    {
        $wish = Wishes::of(GuardiansWish::class, $request);

        return $this->list->page($school, $wish->whom(), $wish->after);
    }

    #[Answers(GuardianCounts::class, 'How many guardians of a school stand how')]
    public function counts(School $school): GuardianCounts
    {
        return $this->list->counts($school);
    }

    #[Answers(InviteOutlook::class, 'What inviting them would come to; nothing is sent')]
    #[Takes(InviteWish::class)]
    public function planInvite(School $school, Request $request): InviteOutlook
    {
        return $this->invites->outlook($school, self::wish($request)->whom());
    }

    #[Answers(InviteRunLine::class, 'Invite guardians by a link to the address on record')]
    #[Takes(InviteWish::class)]
    public function invite(School $school, Request $request): InviteRunLine
    {
        return InviteRunLine::of(
            $this->invites->begin($school, self::wish($request)->whom(), Person::signedIn($request)),
        );
    }

    #[Answers(InviteRuns::class, 'Invitations on their way, and of the last days')]
    public function runs(School $school): InviteRuns
    {
        /** @var Collection<int, InviteRun> $runs */
        $runs = InviteRun::query()
            ->where('school_id', $school->id)
            ->where('made_at', '>=', now()->subDays(7))
            ->orderByDesc('made_at')
            ->orderByDesc('id')
            ->limit(5)
            ->get();

        return new InviteRuns(array_values($runs->map(InviteRunLine::of(...))->all()));
    }

    #[Answers(Said::class, 'Remind guardians who have not answered')]
    #[Takes(TiesWish::class)]
    public function remind(School $school, Request $request): Said
    {
        $wish = Wishes::of(TiesWish::class, $request);
        $ties = array_map(
            fn(string $id): Guardianship => $this->ties->tie($school, $id)[0],
            array_values(array_unique($wish->ids)),
        );

        return new Said(
            $this->invites->remind(
                $school,
                $this->ties->open(array_map(fn(Guardianship $g): string => $g->guardianId(), $ties), $school->id),
                Person::signedIn($request),
            ),
        );
    }

    #[Answers(Said::class, 'Send a new link, to the address on record or to another one')]
    #[Takes(AgainWish::class)]
    public function again(School $school, string $tie, Request $request): Said
    {
        $wish = Wishes::of(AgainWish::class, $request);

        return new Said($this->desk->again($school, $tie, $wish->email, Person::signedIn($request)));
    }

    #[Answers(Said::class, 'Withdraw an invitation: its link stops working')]
    public function withdraw(School $school, string $tie, Request $request): Said
    {
        return new Said($this->desk->withdraw($school, $tie, Person::signedIn($request)));
    }

    #[Answers(Said::class, 'Disconnect a guardian from a child, at once')]
    public function disconnect(School $school, string $tie, Request $request): Said
    {
        return new Said($this->desk->disconnect($school, $tie, Person::signedIn($request)));
    }

    #[Answers(Said::class, 'Restrict contact: never invited, connected or written to about this child')]
    #[Takes(RestrictWish::class)]
    public function restrict(School $school, string $tie, Request $request): Said
    {
        $wish = Wishes::of(RestrictWish::class, $request);

        return new Said($this->desk->restrict($school, $tie, $wish->why, Person::signedIn($request)));
    }

    #[Answers(Said::class, 'Lift a restriction of contact')]
    public function lift(School $school, string $tie, Request $request): Said
    {
        return new Said($this->desk->lift($school, $tie, Person::signedIn($request)));
    }

    #[Answers(Said::class, 'Keep a parent’s consent to the account of a child, with its day and way')]
    #[Takes(ConsentWish::class)]
    public function consent(School $school, string $tie, Request $request): Said
    {
        $wish = Wishes::of(ConsentWish::class, $request);

        return new Said($this->desk->consent($school, $tie, $wish->way, $wish->on, Person::signedIn($request)));
    }

    private static function wish(Request $request): InviteWish
    {
        $wish = Wishes::of(InviteWish::class, $request);
        // Nobody chosen is not everybody.
        if ($wish->ids === []) {
            throw ValidationException::withMessages(['ids' => 'Choose somebody first.']);
        }

        return $wish;
    }
}
