<?php

declare(strict_types=1);

namespace App\Staffing\Http;

use App\Accounts\SignInDesk;
use App\Accounts\Views\Me;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Invitation;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\Known;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\TokenWish;
use App\Platform\Wishes;
use App\Staffing\Http\Wishes\AcceptWish;
use App\Staffing\Http\Wishes\AnswerWish;
use App\Staffing\Http\Wishes\NewcomerWish;
use App\Staffing\Views\InvitationView;
use App\Staffing\Views\OwnInvitation;
use App\Staffing\Views\OwnInvitations;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Records\InvitationState;
use Vantrel\Core\Staffing\Invitations;
use Vantrel\Core\Staffing\InvitationStanding;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;

/** Answering an invitation: whoever holds the link of the mail. */
final class OwnInvitationController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(InvitationView::class, 'What the link of an invitation leads to')]
    #[Takes(TokenWish::class)]
    public function show(Request $request): InvitationView
    {
        $wish = Wishes::of(TokenWish::class, $request);
        $invitation = $this->find($wish->token);
        $section = Section::query()->findOrFail($invitation->section_id);
        /** @var Person|null $person */
        $person = $request->user();

        return new InvitationView(
            $section->name,
            School::query()->findOrFail($section->school_id)->name,
            StaffRole::from($invitation->role)->label(),
            Person::query()->find($invitation->invited_by)?->fullName() ?? '',
            $invitation->email,
            $invitation->begins_on,
            $invitation->ends_on,
            InvitationStanding::at(
                InvitationState::from($invitation->state),
                $invitation->expires_at,
                $this->kit->now(),
            ),
            SignIn::query()->where('user_name', $invitation->email)->exists(),
            $person !== null && $this->isInvited($person, $invitation),
            Instant::iso($invitation->expires_at),
            array_values(
                array_map(
                    fn(Power $p): string => $p->label(),
                    array_filter(Power::cases(), fn(Power $p): bool => StaffRole::from($invitation->role)->may($p)),
                ),
            ),
        );
    }

    #[Answers(Me::class, 'Accept: as the account signed in, or by making one')]
    #[Takes(AcceptWish::class)]
    public function accept(Request $request, SignInDesk $signIns): Me
    {
        $wish = Wishes::of(AcceptWish::class, $request);
        $invitation = $this->find($wish->token);
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->section_id) ??
            throw new NotFoundHttpException();
        $row = $this->snapshots->find(Records\Invitation::class, $invitation->id) ?? throw new NotFoundHttpException();
        $at = $this->kit->occasion($section->schoolId());
        /** @var Person|null $person */
        $person = $request->user();
        if ($person !== null && $this->isInvited($person, $invitation)) {
            $known = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
            $plan = Invitations::accept(
                $section,
                $row,
                $known,
                $this->snapshots->list(Records\Enrollment::class, fn($q) => $q->where('person_id', $person->id)),
                $at,
            );
            $this->ledger->apply($plan, $section->schoolId(), $person, Action::Accept);

            return Me::of($person);
        }
        if (SignIn::query()->where('user_name', $invitation->email)->exists()) {
            throw new Refusal("Sign in as {$invitation->email} first, then accept.");
        }
        $newcomer = Wishes::of(NewcomerWish::class, $request);
        $name = $this->newName($newcomer, $invitation, $section);
        $plan = Invitations::acceptNew($section, $row, $name, Hash::make($newcomer->password), $at);
        $this->ledger->apply($plan, $section->schoolId(), null, Action::Accept);
        $signIn = SignIn::query()->where('user_name', $invitation->email)->firstOrFail();
        $made = Person::query()->findOrFail($signIn->person_id);
        $signIns->byNewSecret($request, $made, $signIn->id);

        return Me::of($made);
    }

    #[Answers(OwnInvitations::class, 'Invitations that wait for an answer of whoever is signed in')]
    public function mine(Request $request): OwnInvitations
    {
        $person = Person::signedIn($request);
        if ($person->kind !== 'staff' || $person->confirmedEmail() === null) {
            return new OwnInvitations([]);
        }
        $open = Invitation::query()
            ->where('email', $person->confirmedEmail())
            ->where('state', 'invited')
            ->where('expires_at', '>', $this->kit->now())
            ->orderBy('sent_at')
            ->get();
        $sections = Section::query()->findMany($open->pluck('section_id'))->keyBy('id')->all();
        $schools = School::query()->findMany(array_column($sections, 'school_id'))->keyBy('id')->all();
        $inviters = Person::query()->findMany($open->pluck('invited_by'))->keyBy('id');
        $own = [];
        foreach ($open as $invitation) {
            $section = $sections[$invitation->section_id];
            if ($person->addressCountsIn($section->school_id)) {
                $own[] = new OwnInvitation(
                    $invitation->id,
                    $section->name,
                    $schools[$section->school_id]->name,
                    StaffRole::from($invitation->role)->label(),
                    $inviters->get($invitation->invited_by)?->fullName() ?? '',
                    $invitation->begins_on,
                    $invitation->ends_on,
                );
            }
        }

        return new OwnInvitations(array_slice($own, 0, 20));
    }

    #[Answers(OwnInvitations::class, 'Answer one of the own invitations')]
    #[Takes(AnswerWish::class)]
    public function answer(Invitation $invitation, Request $request): OwnInvitations
    {
        $wish = Wishes::of(AnswerWish::class, $request);
        $person = Person::signedIn($request);
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->section_id) ??
            throw new NotFoundHttpException();
        $row = $this->snapshots->find(Records\Invitation::class, $invitation->id) ?? throw new NotFoundHttpException();
        $known = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
        $accepts = $wish->answer === 'accept';
        $plan = $accepts
            ? Invitations::accept(
                $section,
                $row,
                $known,
                $this->snapshots->list(Records\Enrollment::class, fn($q) => $q->where('person_id', $person->id)),
                $this->kit->occasion($section->schoolId()),
            )
            : Invitations::decline($section, $row, $this->kit->now());
        $this->ledger->apply($plan, $section->schoolId(), $person, $accepts ? Action::Accept : Action::Decline);

        return $this->mine($request);
    }

    #[Answers(null, 'Decline')]
    #[Takes(TokenWish::class)]
    public function decline(Request $request): \Illuminate\Http\Response
    {
        $wish = Wishes::of(TokenWish::class, $request);
        $invitation = $this->find($wish->token);
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->section_id) ??
            throw new NotFoundHttpException();
        $row = $this->snapshots->find(Records\Invitation::class, $invitation->id) ?? throw new NotFoundHttpException();
        $this->ledger->apply(
            Invitations::decline($section, $row, $this->kit->now()),
            $section->schoolId(),
            null,
            Action::Decline,
        );

        return response()->noContent();
    }

    private function newName(NewcomerWish $wish, Invitation $invitation, Records\Section $section): PersonName
    {
        $name = new PersonName(NameReader::tidy($wish->givenName), NameReader::tidy($wish->familyName));
        PasswordRules::forStaff()->mustTake($wish->password, Known::passwords(), [
            $name->given,
            $name->family,
            $invitation->email,
            $section->name(),
        ]);

        return $name;
    }

    private function isInvited(Person $person, Invitation $invitation): bool
    {
        return $person->kind === 'staff' && $person->confirmedEmail() === $invitation->email;
    }

    private function find(string $token): Invitation
    {
        return Invitation::query()->where('token_hash', Token::hashOf($token))->first() ??
            throw new NotFoundHttpException();
    }
}
