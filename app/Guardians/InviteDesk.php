<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Guardians\Jobs\InviteGuardians;
use App\Guardians\Views\InviteOutlook;
use App\Ledger\Ledger;
use App\Mailroom\Bounces;
use App\Models\InviteRun;
use App\Models\Person as PersonModel;
use App\Models\PrintState;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\TryCounter;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Guardians\Invited;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Values\Language;

/** Invites guardians, a few at once or all of a school in the background. */
final readonly class InviteDesk
{
    /** Up to so many mails go out while the page waits. */
    private const AT_ONCE = 60;

    public function __construct(
        private GuardianList $list,
        private TieReader $ties,
        private InviteLinks $links,
        private Ledger $ledger,
        private PlannerKit $kit,
        private TryCounter $tries,
    ) {}

    public function outlook(School $school, GuardianWhom $whom): InviteOutlook
    {
        $ties = $this->ties->ties($this->list->ids($school, $whom));
        $planned = $this->plan($school, $ties, null, $this->kit->seed());
        return new InviteOutlook(
            count($planned->result->invitations),
            $planned->result->children,
            $planned->result->leftOut(),
            array_combine(
                array_map(
                    fn(string $tag): string => Language::read($tag)?->name() ?? $tag,
                    array_keys($planned->result->languages),
                ),
                $planned->result->languages,
            ),
            Invites::DAYS,
        );
    }

    public function begin(School $school, GuardianWhom $whom, PersonModel $actor): InviteRun
    {
        $run = new InviteRun([
            'id' => $this->kit->seed(),
            'school_id' => $school->id,
            'person_id' => $actor->id,
            'whom' => $whom->kept(),
            'state' => PrintState::Waiting,
            'done' => 0,
            'total' => count($this->list->ids($school, $whom)),
            'made_at' => $this->kit->now(),
        ]);
        if ($run->total === 0) {
            throw new Refusal('There are no guardians in what was chosen.');
        }
        $run->save();
        if ($run->total > self::AT_ONCE) {
            InviteGuardians::dispatch($run->id);

            return $run;
        }
        $this->write($run, $school);
        while ($this->further($run, $school, self::AT_ONCE)) {
            continue;
        }

        return $run->refresh();
    }

    /**
     * Writes the invitations into the ledger, all or none; once, however often a job is run.
     */
    public function write(InviteRun $run, School $school): void
    {
        if ($run->state !== PrintState::Waiting) {
            return;
        }
        $ties = $this->ties->ties($this->list->ids($school, GuardianWhom::of($run->whom)));
        $planned = $this->plan($school, $ties, $run->person_id, $run->id);
        $invited = $planned->result;
        $said = trim(
            ($invited->invitations === [] ? 'Nobody was invited.' : $planned->plan->sentence) .
                ' ' .
                $invited->leftOut(),
        );
        $after = function () use ($run, $school, $invited, $said): void {
            $this->links->put($school, $invited->invitations, $run->id);
            $run->update([
                'state' => PrintState::Working,
                'total' => count($invited->invitations),
                'said' => mb_strimwidth($said, 0, 500, '…'),
            ]);
        };
        if ($planned->plan->isEmpty()) {
            $after();

            return;
        }
        $this->ledger->apply(
            $planned->plan,
            $school->id,
            PersonModel::query()->find($run->person_id),
            Action::Guardian,
            workKey: "invite $run->id",
            within: $after,
        );
    }

    /** @return bool whether there is more to hand over */
    public function further(InviteRun $run, School $school, int $most): bool
    {
        $count = $this->links->handOver($school, null, $most);
        $run->update(
            $count === 0
                ? ['state' => PrintState::Done, 'done' => $run->total]
                : ['done' => max(0, $run->total - $this->links->waitingOf($run->id))],
        );

        return $count > 0;
    }

    /**
     * A link to somebody who came to the door with the very address that is on record. A mailbox is not filled by
     * somebody who asks again and again; whoever asks is not told of it either.
     */
    public function linkOnAsking(School $school, string $guardianId): void
    {
        $sent = [Limit::ResetPerson, "guardian $guardianId"];
        if (!$this->tries->takes($sent)) {
            return;
        }
        $open = $this->ties->open([$guardianId], $school->id);
        $ties = $this->ties->at($guardianId, $school->id);
        $planned = $this->plan($school, $ties, null, $this->kit->seed());
        if ($planned->result->invitations === []) {
            $this->links->sendAgain($school, array_map(fn(GuardianInvitation $i): string => $i->id, $open), false);

            return;
        }
        $this->ledger->apply(
            $planned->plan,
            $school->id,
            null,
            Action::AskGuardian,
            within: fn() => $this->links->put($school, $planned->result->invitations, null),
        );
        $this->links->handOver($school, $planned->result->invitations, 1);
    }

    /**
     * Reminds whoever has not answered for a week: chosen ones, or all who are due.
     *
     * @param  list<GuardianInvitation>  $invitations
     */
    public function remind(School $school, array $invitations, ?PersonModel $actor): string
    {
        $plan = Invites::remind($invitations, $this->kit->now());
        if ($plan->isEmpty()) {
            throw new Refusal('None of these has a link that still works. Invite them again.');
        }
        $this->ledger->apply($plan, $school->id, $actor, Action::Guardian);
        $this->links->sendAgain($school, array_map(fn(GuardianInvitation $i): string => $i->id, $invitations), true);

        return $plan->sentence;
    }

    /**
     * @param  list<Guardianship>  $ties
     * @return Planned<Invited>
     */
    private function plan(School $school, array $ties, ?string $by, string $seed): Planned
    {
        $guardians = array_map(fn(Guardianship $g): string => $g->guardianId(), $ties);

        $people = $this->ties->people([
            ...$guardians,
            ...array_map(fn(Guardianship $g): string => $g->studentId(), $ties),
        ]);

        return Invites::plan(
            $school->id,
            $ties,
            $people,
            $this->ties->open($guardians, $school->id),
            Bounces::of(array_values(array_filter(array_map(fn(Person $p): ?string => $p->email(), $people)))),
            $this->links->hash(...),
            $by,
            $this->kit->ids($seed),
            $this->kit->now(),
        );
    }
}
