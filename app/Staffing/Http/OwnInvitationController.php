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
use App\Platform\CoreKit;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Platform\Takes;
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
use Vantrel\Core\Staffing\Invitations;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;

/** Answering an invitation: whoever holds the link of the mail. */
final class OwnInvitationController
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly CoreKit $kit,
    ) {}

    #[Answers(InvitationView::class, 'What the link of an invitation leads to')]
    #[Takes(['token' => 'string'])]
    public function show(Request $request): InvitationView
    {
        $invitation = $this->find($request);
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
            Invitations::stateAt($invitation->state, $invitation->expires_at, $this->kit->now()),
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
    #[Takes(['token' => 'string', 'given_name?' => 'string', 'family_name?' => 'string', 'password?' => 'string'])]
    public function accept(Request $request, SignInDesk $signIns): Me
    {
        $invitation = $this->find($request);
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->section_id) ??
            throw new NotFoundHttpException();
        $row = $this->snapshots->find(Records\Invitation::class, $invitation->id) ?? throw new NotFoundHttpException();
        $today = SchoolDay::today($section->schoolId());
        $ids = $this->kit->ids($this->kit->seed());
        /** @var Person|null $person */
        $person = $request->user();
        if ($person !== null && $this->isInvited($person, $invitation)) {
            $known = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
            $plan = Invitations::accept(
                $section,
                $row,
                $known,
                $this->snapshots->list(Records\Enrollment::class, fn($q) => $q->where('person_id', $person->id)),
                $ids,
                $today,
                $this->kit->now(),
            );
            $this->ledger->apply($plan, $section->schoolId(), $person, Action::Accept);

            return Me::of($person);
        }
        if (SignIn::query()->where('user_name', $invitation->email)->exists()) {
            throw new Refusal("Sign in as {$invitation->email} first, then accept.");
        }
        $name = $this->newName($request, $invitation, $section);
        $plan = Invitations::acceptNew(
            $section,
            $row,
            $name,
            Hash::make($request->string('password')->value()),
            $ids,
            $today,
            $this->kit->now(),
        );
        $this->ledger->apply($plan, $section->schoolId(), null, Action::Accept);
        $signIn = SignIn::query()->where('user_name', $invitation->email)->firstOrFail();
        $made = Person::query()->findOrFail($signIn->person_id);
        $signIns->byNewSecret($request, $made, $signIn->id);

        return Me::of($made);
    }

    #[Answers(OwnInvitations::class, 'Invitations that wait for an answer of whoever is signed in')]
    public function mine(Request $request): OwnInvitations
    {
        /** @var Person $person */
        $person = $request->user();
        /** @var \Illuminate\Support\Collection<int, Invitation> $open */
        $open =
            $person->kind !== 'staff' || $person->confirmedEmail() === null
                ? collect()
                : Invitation::query()
                    ->where('email', $person->confirmedEmail())
                    ->where('state', 'invited')
                    ->where('expires_at', '>', $this->kit->now())
                    ->orderBy('sent_at')
                    ->limit(20)
                    ->get();

        return new OwnInvitations(
            array_values(
                $open
                    ->map(function (Invitation $i): OwnInvitation {
                        $section = Section::query()->findOrFail($i->section_id);

                        return new OwnInvitation(
                            $i->id,
                            $section->name,
                            School::query()->findOrFail($section->school_id)->name,
                            StaffRole::from($i->role)->label(),
                            Person::query()->find($i->invited_by)?->fullName() ?? '',
                            $i->begins_on,
                            $i->ends_on,
                        );
                    })
                    ->all(),
            ),
        );
    }

    #[Answers(OwnInvitations::class, 'Answer one of the own invitations')]
    #[Takes(['answer' => 'accept|decline'])]
    public function answer(Invitation $invitation, Request $request): OwnInvitations
    {
        $request->validate(['answer' => 'required|in:accept,decline']);
        /** @var Person $person */
        $person = $request->user();
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->section_id) ??
            throw new NotFoundHttpException();
        $row = $this->snapshots->find(Records\Invitation::class, $invitation->id) ?? throw new NotFoundHttpException();
        $known = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
        $accepts = $request->string('answer')->value() === 'accept';
        $plan = $accepts
            ? Invitations::accept(
                $section,
                $row,
                $known,
                $this->snapshots->list(Records\Enrollment::class, fn($q) => $q->where('person_id', $person->id)),
                $this->kit->ids($this->kit->seed()),
                SchoolDay::today($section->schoolId()),
                $this->kit->now(),
            )
            : Invitations::decline($section, $row, $this->kit->now());
        $this->ledger->apply($plan, $section->schoolId(), $person, $accepts ? Action::Accept : Action::Decline);

        return $this->mine($request);
    }

    #[Answers(null, 'Decline')]
    #[Takes(['token' => 'string'])]
    public function decline(Request $request): \Illuminate\Http\Response
    {
        $invitation = $this->find($request);
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

    private function newName(Request $request, Invitation $invitation, Records\Section $section): PersonName
    {
        $request->validate([
            'given_name' => 'required|string|max:60',
            'family_name' => 'required|string|max:60',
            'password' => 'required|string|max:256',
        ]);
        $name = new PersonName(
            NameReader::tidy($request->string('given_name')->value()),
            NameReader::tidy($request->string('family_name')->value()),
        );
        PasswordRules::forStaff()->mustTake($request->string('password')->value(), [
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

    private function find(Request $request): Invitation
    {
        $request->validate(['token' => 'required|string|max:64']);

        return Invitation::query()->where('token_hash', Token::hashOf($request->string('token')->value()))->first() ??
            throw new NotFoundHttpException();
    }
}
