<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\AccountReach;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\Addresses;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Guardians\ConsentWay;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Guardians\Ties;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\GuardianInvitation;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Values\MailAddress;

/** What a coordinator does with one tie between a guardian and a child. */
final readonly class GuardianDesk
{
    public function __construct(
        private TieReader $ties,
        private InviteDesk $invites,
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
    ) {}

    public function withdraw(School $school, string $id, PersonModel $actor): string
    {
        [$link, $guardian] = $this->ties->tie($school, $id);
        $invitation =
            $this->ties->open([$guardian->id], $school->id)[0] ??
            throw new Refusal('Nothing has been sent that could be withdrawn.');

        return $this->write(
            $school,
            $actor,
            Invites::withdraw(
                $invitation,
                $guardian,
                $this->ties->at($link->guardianId(), $school->id),
                $actor->id,
                $this->kit->now(),
            ),
        );
    }

    public function disconnect(School $school, string $id, PersonModel $actor): string
    {
        [$link, $guardian, $student] = $this->ties->tie($school, $id);
        [$open, $others] = $this->sent($school, $link);

        return $this->write(
            $school,
            $actor,
            Ties::disconnect($link, $guardian, $student, $open, $others, $actor->id, $this->kit->now()),
        );
    }

    /** A guardian lets go of a child by themselves. */
    public function leave(PersonModel $guardian, string $studentId): string
    {
        $link =
            $this->snapshots->list(
                Guardianship::class,
                fn($q) => $q
                    ->where('guardian_id', $guardian->id)
                    ->where('student_id', $studentId)
                    ->where('state', 'connected'),
            )[0] ?? throw new NotFoundHttpException();
        $school = School::query()->findOrFail(
            (string) DB::table('people')->where('id', $studentId)->value('school_id'),
        );
        [, $person, $student] = $this->ties->tie($school, $link->id);
        [$open, $others] = $this->sent($school, $link);

        return $this->write(
            $school,
            $guardian,
            Ties::disconnect($link, $person, $student, $open, $others, null, $this->kit->now()),
        );
    }

    public function restrict(School $school, string $id, string $why, PersonModel $actor): string
    {
        [$link, $guardian, $student] = $this->ties->tie($school, $id);
        [$open, $others] = $this->sent($school, $link);

        return $this->write(
            $school,
            $actor,
            Ties::restrict($link, $guardian, $student, $why, $open, $others, $actor->id, $this->kit->now()),
        );
    }

    public function lift(School $school, string $id, PersonModel $actor): string
    {
        return $this->write($school, $actor, Ties::lift(...$this->ties->tie($school, $id)));
    }

    public function consent(School $school, string $id, ConsentWay $way, string $on, PersonModel $actor): string
    {
        [$link, $guardian, $student] = $this->ties->tie($school, $id);

        return $this->write(
            $school,
            $actor,
            Ties::consent($link, $guardian, $student, $way, $on, SchoolDay::today($school->id)),
        );
    }

    /** Sends a link once more; to a new address, if one is given, and the old link ends. */
    public function again(School $school, string $id, ?string $email, PersonModel $actor): string
    {
        return DB::transaction(function () use ($school, $id, $email, $actor): string {
            [$link, $guardian] = $this->ties->tie($school, $id);
            if ($email !== null && trim($email) !== '' && trim($email) !== $guardian->email()) {
                $this->readdress($school, $guardian, $email, $actor);
            } else {
                $this->withdrawQuietly($school, $guardian, $actor);
            }
            $run = $this->invites->begin($school, new GuardianWhom([$link->id]), $actor);
            if ($run->total === 0) {
                throw new Refusal((string) $run->said);
            }

            return "A new link is on its way to {$this->ties->tie($school, $id)[1]->email()}; an older one has ended.";
        });
    }

    private function readdress(School $school, Person $guardian, string $typed, PersonModel $actor): void
    {
        if ($guardian->schoolId() !== $school->id) {
            throw new Refusal('Their record is kept at another school, which can change the address.', 'email');
        }
        AccountReach::mustBeHeldBy($actor, PersonModel::query()->findOrFail($guardian->id), 'email');
        $mail = MailAddress::read($typed) ?? throw new Refusal('That is not a complete mail address.', 'email');
        $this->ledger->apply(
            Addresses::replace($guardian, Address::claimed($mail->address, AddressSource::Hand, $this->kit->now())),
            $school->id,
            $actor,
            Action::Address,
        );
    }

    /** The link that was sent ends; whoever was invited with it is invited with the next. */
    private function withdrawQuietly(School $school, Person $guardian, PersonModel $actor): void
    {
        foreach ($this->ties->open([$guardian->id], $school->id) as $invitation) {
            $this->ledger->apply(
                Invites::withdraw($invitation, $guardian, [], $actor->id, $this->kit->now()),
                $school->id,
                $actor,
                Action::Guardian,
            );
        }
    }

    /**
     * @return array{list<GuardianInvitation>, bool} links that are open, and whether they are about other children too
     */
    private function sent(School $school, Guardianship $link): array
    {
        $others = array_filter(
            $this->ties->at($link->guardianId(), $school->id),
            fn(Guardianship $g): bool => $g->id !== $link->id &&
                $g->state() === GuardianshipState::Invited &&
                $g->restriction() === null,
        );

        return [$this->ties->open([$link->guardianId()], $school->id), $others !== []];
    }

    private function write(School $school, PersonModel $actor, Plan $plan): string
    {
        $this->ledger->apply($plan, $school->id, $actor, Action::Guardian);

        return $plan->sentence;
    }
}
