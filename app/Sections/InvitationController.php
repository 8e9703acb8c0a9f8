<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\InvitationMail;
use App\Models\Invitation;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Takes;
use Carbon\CarbonImmutable;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Mail;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Placement\Invitations;
use Vantrel\Core\Placement\StaffRole;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Row;

/** Inviting colleagues into a section, sending again, withdrawing. */
final class InvitationController
{
    public function __construct(private readonly SectionReader $reader, private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    #[Answers(SectionDetail::class, 'Invite a colleague by mail')]
    #[Takes(['email' => 'string', 'role' => 'co_teacher|assistant'])]
    public function store(Section $section, Request $request): SectionDetail
    {
        $request->validate(['email' => 'required|string|max:254', 'role' => 'required|in:co_teacher,assistant']);
        $actor = $this->actor($request);
        $seed = $this->kit->seed();
        $token = Token::draw($this->kit->random("$seed invitation"));
        $role = StaffRole::from($request->string('role')->value());
        $plan = Invitations::invite(
            $this->section($section->id), $request->string('email')->value(), $role,
            $this->snapshots->list(Entity::Invitation, fn ($q) => $q->where('section_id', $section->id)),
            $this->snapshots->list(Entity::Person, fn ($q) => $q->whereIn('id', fn ($s) => $s->select('person_id')->from('enrollments')->where('section_id', $section->id)->where('role', '!=', 'student')->whereNull('ends_on'))),
            School::query()->findOrFail($section->school_id)->mail_domains, $token, $actor->id, $this->kit->ids($seed), $this->kit->now(), $this->expires(),
        );
        $this->ledger->apply($plan, $section->school_id, $actor, 'invite', within: function () use ($section, $plan, $role, $token, $actor): void {
            $this->send($section, (string) $plan->changes[0]->after['email'], $role, $token, $actor);
        });

        return $this->reader->detail($section, $actor);
    }

    #[Answers(SectionDetail::class, 'Send an invitation again; the old link stops working')]
    public function again(Invitation $invitation, Request $request): SectionDetail
    {
        $section = Section::query()->findOrFail($invitation->section_id);
        $token = Token::draw($this->kit->random($this->kit->seed().' invitation'));
        $plan = Invitations::again($this->section($section->id), $this->row($invitation), $token, $this->kit->now(), $this->expires());
        $actor = $this->actor($request);
        $this->ledger->apply($plan, $section->school_id, $actor, 'invite', within: function () use ($section, $invitation, $token, $actor): void {
            $this->send($section, $invitation->email, StaffRole::from($invitation->role), $token, $actor);
        });

        return $this->reader->detail($section, $actor);
    }

    #[Answers(null, 'Withdraw an invitation')]
    public function destroy(Invitation $invitation, Request $request): Response
    {
        $section = Section::query()->findOrFail($invitation->section_id);
        $this->ledger->apply(Invitations::withdraw($this->section($section->id), $this->row($invitation), $this->kit->now()), $section->school_id, $this->actor($request), 'withdraw');

        return response()->noContent();
    }

    private function send(Section $section, string $to, StaffRole $role, Token $token, Person $inviter): void
    {
        Mail::to($to)->send(new InvitationMail(
            $section->school_id, School::query()->findOrFail($section->school_id)->name, $section->name, $role->label(), $inviter->fullName(),
            rtrim((string) config('app.url'), '/').'/invited/'.$token->plain, CarbonImmutable::parse($this->expires())->format('j F Y'),
        ));
    }

    private function expires(): string
    {
        return CarbonImmutable::parse($this->kit->now())->addDays(Invitations::DAYS)->format('Y-m-d H:i:s');
    }

    private function section(string $id): Row
    {
        return $this->snapshots->find(Entity::Section, $id) ?? throw new NotFoundHttpException;
    }

    private function row(Invitation $invitation): Row
    {
        return $this->snapshots->find(Entity::Invitation, $invitation->id) ?? throw new NotFoundHttpException;
    }

    private function actor(Request $request): Person
    {
        /** @var Person $person */
        $person = $request->user();

        return $person;
    }
}
