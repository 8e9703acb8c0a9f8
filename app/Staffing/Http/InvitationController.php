<?php

declare(strict_types=1);

namespace App\Staffing\Http;

use App\Mailroom\Mail\InvitationMail;
use App\Models\Invitation;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use App\Staffing\Http\Wishes\InvitationWish;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Mail;
use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;
use Vantrel\Core\Staffing\Invitations;
use Vantrel\Core\Staffing\InviteWish;
use Vantrel\Core\Staffing\StaffRole;

/** Inviting colleagues into a section, sending again, withdrawing. */
final class InvitationController
{
    public function __construct(
        private readonly SectionDesk $desk,
        private readonly SectionReader $reader,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(SectionDetail::class, 'Invite one or many colleagues by mail; a substitute with first and last day')]
    #[Takes(InvitationWish::class)]
    public function store(Section $section, Request $request): SectionDetail
    {
        $asked = Wishes::of(InvitationWish::class, $request);
        $actor = Person::signedIn($request);
        $seed = $this->kit->seed();
        // The last day is typed; the first day after is what is kept.
        $last = $asked->endsOn;
        $wish = new InviteWish(
            InviteWish::addressesIn($asked->email),
            StaffRole::from($asked->role),
            $actor->id,
            $asked->beginsOn,
            $last === null ? null : Span::after($last),
        );
        $staff = array_map(fn(Records\Enrollment $e): string => $e->personId(), $this->desk->staff($section));
        $planned = Invitations::invite(
            $this->desk->row($section),
            $wish,
            $this->desk->of(Records\Invitation::class, $section),
            $this->desk->snapshots->list(Records\Person::class, fn(Builder $q): Builder => $q->whereIn('id', $staff)),
            $this->desk->rules($section),
            $this->kit->random("$seed invitations"),
            $this->kit->ids($seed),
            $this->kit->now(),
        );
        $this->desk->apply($planned->plan, $section, $request, Action::Invite, function () use (
            $section,
            $planned,
            $wish,
            $actor,
        ): void {
            foreach ($planned->result as $to => $token) {
                $this->send($section, $to, $wish->role, $token, $actor->fullName());
            }
        });

        return $this->reader->detail($section, $actor, null);
    }

    #[Answers(SectionDetail::class, 'Send an invitation again; the old link stops working')]
    public function again(Invitation $invitation, Request $request): SectionDetail
    {
        $section = Section::query()->findOrFail($invitation->section_id);
        $token = Token::draw($this->kit->random($this->kit->seed() . ' invitation'));
        $plan = Invitations::again(
            $this->desk->row($section),
            $this->desk->find(Records\Invitation::class, $invitation->id),
            $token,
            $this->kit->now(),
        );
        $actor = Person::signedIn($request);
        $this->desk->apply($plan, $section, $request, Action::Invite, function () use (
            $section,
            $invitation,
            $token,
            $actor,
        ): void {
            $this->send($section, $invitation->email, StaffRole::from($invitation->role), $token, $actor->fullName());
        });

        return $this->reader->detail($section, $actor, null);
    }

    #[Answers(null, 'Withdraw an invitation')]
    public function destroy(Invitation $invitation, Request $request): Response
    {
        $section = Section::query()->findOrFail($invitation->section_id);
        $this->desk->apply(
            Invitations::withdraw(
                $this->desk->row($section),
                $this->desk->find(Records\Invitation::class, $invitation->id),
                $this->kit->now(),
            ),
            $section,
            $request,
            Action::Withdraw,
        );

        return response()->noContent();
    }

    private function send(Section $section, string $to, StaffRole $role, Token $token, string $inviter): void
    {
        Mail::to($to)->send(
            new InvitationMail(
                $section->school_id,
                School::query()->findOrFail($section->school_id)->name,
                $section->name,
                $role->label(),
                $inviter,
                rtrim((string) config('app.url'), '/') . '/invited#' . $token->plain,
                CarbonImmutable::parse(Invitations::expiry($this->kit->now()))->format('j F Y'),
            ),
        );
    }
}
