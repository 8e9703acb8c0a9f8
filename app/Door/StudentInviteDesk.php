<?php

declare(strict_types=1);

namespace App\Door;

use App\Door\Views\LeftOutLine;
use App\Door\Views\StudentInviteLine;
use App\Door\Views\StudentInviteOutlook;
use App\Door\Views\StudentInvitePage;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Bounces;
use App\Mailroom\Mail\StudentInvitationMail;
use App\Mailroom\Views\LetterPreview;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\Invitee;
use Vantrel\Core\Door\Invitees;
use Vantrel\Core\Door\StudentInvites;
use Vantrel\Core\Door\StudentInviteStanding;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\StudentInvitationState;
use Vantrel\Core\Values\Language;

/** Students and families asked into a section by mail: looked at first, sent, sent again, withdrawn. */
final readonly class StudentInviteDesk
{
    private const SHOWN = 500;

    public function __construct(
        private InviteeReader $reader,
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
    ) {}

    public function outlook(
        Section $section,
        string $who,
        bool $family,
        string $language,
        Person $actor,
    ): StudentInviteOutlook {
        $invitees = $this->invitees($section, $who, $family, $language);
        $languages = $previews = [];
        $until = $this->until($section);
        foreach ($invitees->invited as $one) {
            $name = Language::read($one->language)?->name() ?? $one->language;
            $languages[$name] = ($languages[$name] ?? 0) + 1;
            $mail = $this->mail($section, $actor, $one, '', self::link('…'), $until);
            $previews[$one->language] ??= new LetterPreview(
                $one->typed,
                $name,
                $mail->about(),
                implode("\n\n", $mail->lines()),
            );
        }
        arsort($languages);
        $bounced = Bounces::of(array_map(fn(Invitee $i): string => $i->email, $invitees->invited));

        return new StudentInviteOutlook(
            count($invitees->invited),
            count(array_filter($invitees->invited, fn(Invitee $i): bool => $i->studentId !== null)),
            $languages,
            array_map(fn(array $l): LeftOutLine => new LeftOutLine(...$l), $invitees->leftOut),
            array_values(
                array_map(
                    fn(Invitee $i): string => $i->typed,
                    array_filter($invitees->invited, fn(Invitee $i): bool => isset($bounced[$i->email])),
                ),
            ),
            array_values($previews),
            StudentInvites::DAYS,
            self::fingerprint($invitees),
        );
    }

    /**
     * @param  string  $seen fingerprint of what was looked at
     *
     * @throws StalePlan where it would go to others now
     */
    public function send(
        Section $section,
        string $who,
        bool $family,
        string $language,
        string $seen,
        Person $actor,
    ): string {
        // Of two who press at one time, the second finds those of the first among the invited.
        return $this->ledger->holding(['sections' => [$section->id]], function () use (
            $section,
            $who,
            $family,
            $language,
            $seen,
            $actor,
        ): string {
            $invitees = $this->invitees($section, $who, $family, $language);
            if (!hash_equals(self::fingerprint($invitees), $seen)) {
                throw new StalePlan(
                    ['whom it goes to'],
                    'Whom it goes to has changed since you looked. Nothing was sent; look at it again.',
                );
            }
            $seed = $this->kit->seed();
            $planned = StudentInvites::invite(
                $this->row($section),
                $invitees->invited,
                $actor->id,
                DB::table('student_invitations')
                    ->where('invited_by', $actor->id)
                    ->where('sent_at', '>', CarbonImmutable::now('UTC')->subDay())
                    ->count(),
                $this->kit->random("$seed student invitations"),
                $this->kit->occasion($section->school_id, $seed),
            );
            $this->ledger->apply(
                $planned->plan,
                $section->school_id,
                $actor,
                Action::Invite,
                within: function () use ($section, $invitees, $planned, $actor): void {
                    $until = $this->until($section);
                    foreach (array_keys($planned->result) as $i => $id) {
                        $this->post($section, $actor, $invitees->invited[$i], $id, $planned->result[$id], $until);
                    }
                },
            );

            return $planned->plan->sentence;
        });
    }

    public function again(Section $section, string $id, Person $actor): string
    {
        $invitation = $this->find($section, $id);
        $token = Token::draw($this->kit->random($this->kit->seed() . ' student invitation'));
        $plan = StudentInvites::again($this->row($section), $invitation, $token, $this->kit->now());
        $student = $invitation->personId() === null ? null : Person::query()->find($invitation->personId());
        $invitee = new Invitee(
            $invitation->typed(),
            $invitation->email(),
            $invitation->isFamily(),
            $invitation->personId(),
            $invitation->guardianId(),
            (string) ($student->preferred_name ?? $student?->given_name),
            $invitation->language(),
        );
        $this->ledger->apply(
            $plan,
            $section->school_id,
            $actor,
            Action::Invite,
            within: function () use ($section, $actor, $invitee, $id, $token): void {
                // Nobody has looked at the new link yet.
                DB::table('student_invitations_opened')->where('invitation_id', $id)->delete();
                $this->post($section, $actor, $invitee, $id, $token, $this->until($section));
            },
        );

        return $plan->sentence;
    }

    public function withdraw(Section $section, string $id, Person $actor): string
    {
        $plan = StudentInvites::withdraw($this->row($section), $this->find($section, $id), $this->kit->now());
        $this->ledger->apply($plan, $section->school_id, $actor, Action::Withdraw);

        return $plan->sentence;
    }

    public function page(Section $section, Person $reader, string $said): StudentInvitePage
    {
        $today = SchoolDay::today($section->school_id);
        $rows = DB::table('student_invitations as i')
            ->leftJoin('student_invitations_opened as o', 'o.invitation_id', '=', 'i.id')
            ->leftJoin('join_requests as r', 'r.id', '=', 'i.join_request_id')
            ->leftJoin('people as p', 'p.id', '=', 'i.person_id')
            ->where('i.section_id', $section->id)
            ->orderByDesc('i.sent_at')
            ->orderByDesc('i.id')
            ->limit(self::SHOWN)
            ->get([
                'i.*',
                'o.opened_at',
                'r.state as request',
                DB::raw("trim(concat(coalesce(p.called_name, r.given_name, ''), ' ',
                    coalesce(p.family_name, r.family_name, ''))) as name"),
                // Who has been merged since is in the section as whom they were merged into.
                DB::raw('coalesce(p.merged_into, p.id) as student'),
            ]);
        $in = DB::table('enrollments as e')
            ->where('e.section_id', $section->id)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $today))
            ->pluck('person_id')
            ->flip();
        $mails = DB::table('outgoing_messages')
            ->whereIn('about_id', $rows->pluck('id'))
            ->orderBy('id')
            ->get(['about_id', 'state', 'problem'])
            ->keyBy('about_id');
        $full = Coordinators::has($reader, $section->school_id);
        $now = $this->kit->now();

        return new StudentInvitePage(
            array_values(
                $rows
                    ->map(
                        fn(stdClass $row): StudentInviteLine => self::line(
                            $row,
                            isset($in[$row->student]),
                            $mails[$row->id] ?? null,
                            $full,
                            $now,
                        ),
                    )
                    ->all(),
            ),
            $said,
        );
    }

    private static function line(stdClass $row, bool $isIn, ?stdClass $mail, bool $full, string $now): StudentInviteLine
    {
        $state = StudentInviteStanding::at(
            StudentInvitationState::from((string) $row->state),
            $row->request === null ? null : RequestState::from((string) $row->request),
            $isIn,
            $row->opened_at !== null,
            $mail === null ? null : MessageState::from((string) $mail->state),
            (string) $row->expires_at,
            $now,
        );

        return new StudentInviteLine(
            (string) $row->id,
            (string) $row->typed,
            $full ? (string) $row->email : '',
            $full || $state->namesWhom() ? (string) $row->name : '',
            $row->reader === 'family',
            $state,
            $state === StudentInviteStanding::NotThere && $full ? (string) $mail?->problem : '',
            Instant::iso((string) $row->sent_at),
            Instant::isoOrNull($row->opened_at === null ? null : (string) $row->opened_at),
            Instant::iso((string) $row->expires_at),
            Instant::isoOrNull($row->answered_at === null ? null : (string) $row->answered_at),
            $state->isOpen(),
        );
    }

    private function invitees(Section $section, string $who, bool $family, string $language): Invitees
    {
        $lines = Invitees::lines($who);
        $open = DB::table('student_invitations')
            ->where('section_id', $section->id)
            ->where('state', StudentInvitationState::Invited->value)
            ->get(['email', 'person_id']);

        return Invitees::of(
            $lines,
            $family,
            $language,
            count($lines) > Invitees::MOST ? [] : $this->reader->known($section, $lines),
            array_values(
                $open
                    ->map(
                        fn(stdClass $i): array => [
                            (string) $i->email,
                            $i->person_id === null ? null : (string) $i->person_id,
                        ],
                    )
                    ->all(),
            ),
        );
    }

    private function post(
        Section $section,
        Person $actor,
        Invitee $invitee,
        string $id,
        Token $token,
        string $until,
    ): void {
        Mail::to($invitee->email)->send(
            $this->mail($section, $actor, $invitee, $id, self::link($token->plain), $until),
        );
    }

    private function mail(
        Section $section,
        Person $actor,
        Invitee $invitee,
        string $id,
        string $link,
        string $until,
    ): StudentInvitationMail {
        return new StudentInvitationMail(
            $section->school_id,
            School::query()->findOrFail($section->school_id)->name,
            $section->name,
            $actor->fullName(),
            $invitee,
            $id,
            $link,
            $until,
        );
    }

    private static function link(string $token): string
    {
        return rtrim((string) config('app.url'), '/') . "/come#$token";
    }

    /** The last day a link sent now works, as the school’s clock says it, YYYY-MM-DD. */
    private function until(Section $section): string
    {
        return SchoolDay::lastWhole($section->school_id, StudentInvites::expiry($this->kit->now()));
    }

    private function row(Section $section): Records\Section
    {
        return $this->snapshots->find(Records\Section::class, $section->id) ?? throw new NotFoundHttpException();
    }

    private function find(Section $section, string $id): Records\StudentInvitation
    {
        $found = $this->snapshots->find(Records\StudentInvitation::class, $id);

        return $found?->sectionId() === $section->id ? $found : throw new NotFoundHttpException();
    }

    private static function fingerprint(Invitees $invitees): string
    {
        return hash('sha256', (string) json_encode($invitees->invited, JSON_THROW_ON_ERROR));
    }
}
