<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Accounts\Views\SessionLine;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Mail\AccountNotice;
use App\Models\Person;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\CredentialKind;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\OffBoarding;
use Vantrel\Core\Accounts\StaffRecords;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Records\SectionState;

/**
 * Ends ways to sign in: one by one, all at once, or all of somebody who leaves. What is in the ledger ends by a plan;
 * sessions follow.
 */
final class CredentialDesk
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
        private readonly Passkeys $passkeys,
        private readonly SecondFactors $secondFactors,
    ) {}

    /**
     * @return string what was done, in a sentence
     */
    public function end(Person $person, CredentialKind $kind, string $id, Person $actor): string
    {
        $plan = match ($kind) {
            CredentialKind::Password, CredentialKind::Passphrase => Credentials::endSecret(
                $this->own(Records\SignIn::class, $id, fn(Records\SignIn $s): string => $s->personId(), $person),
            ),
            CredentialKind::Card => Credentials::endBadge(
                $this->own(
                    Records\Badge::class,
                    $id,
                    fn(Records\Badge $b): string => (string) $this->snapshots
                        ->find(Records\SignIn::class, (string) $b->signInId())
                        ?->personId(),
                    $person,
                ),
                $person->fullName(),
                $this->kit->now(),
            ),
            CredentialKind::SignOn => Credentials::endIdentity(
                $this->own(Records\Identity::class, $id, fn(Records\Identity $i): string => $i->personId(), $person),
                $person->fullName(),
                $this->kit->now(),
            ),
            default => null,
        };
        if ($plan !== null) {
            $this->ledger->apply($plan, $person->school_id, $actor, Action::EndCredential);
            if ($kind === CredentialKind::Password || $kind === CredentialKind::Passphrase) {
                ResetLinks::closeAll($person->id);
            }
            AccountNotice::tell($person, 'ended', detail: $plan->sentence);

            return $plan->sentence;
        }

        return $this->endOutside($person, $kind, $id, $actor);
    }

    /** @return string what was done, in a sentence */
    public function endAll(Person $person, Person $actor): string
    {
        $row = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
        $plan = Credentials::endAll(
            $row,
            $this->signIns($person->id),
            $this->badges($person->id),
            $this->identities($person->id),
            $this->kit->now(),
        );
        if (!$plan->isEmpty()) {
            $this->ledger->apply($plan, $person->school_id, $actor, Action::EndCredential);
        }
        $this->shut($person);
        AccountNotice::tell($person, 'all', detail: $plan->sentence);

        return $plan->sentence;
    }

    /** @param  string|null  $toId who is to lead the sections they led */
    public function offBoarding(Person $person, ?string $toId, string $seed): Plan
    {
        $row = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
        $to =
            $toId === null
                ? null
                : $this->snapshots->find(Records\Person::class, $toId) ??
                    throw new Refusal('Choose somebody on the staff of this school.', 'to');
        if ($to !== null && $to->schoolId() !== $person->school_id) {
            throw new Refusal('Choose somebody on the staff of this school.', 'to');
        }
        $ids = $this->kit->ids($seed);
        $now = $ids->instant();
        $alone = DB::table('coordinators as c')
            ->where('c.person_id', $person->id)
            ->where('c.state', 'active')
            ->whereNotExists(
                fn(Builder $o) => $o
                    ->from('coordinators as o')
                    ->join('people as p', 'p.id', '=', 'o.person_id')
                    ->whereColumn('o.school_id', 'c.school_id')
                    ->where('o.person_id', '!=', $person->id)
                    ->where('o.state', 'active')
                    ->where('p.state', 'active'),
            )
            ->exists();

        return OffBoarding::plan(
            $row,
            $this->records($person, $now),
            $to,
            $alone,
            new Occasion($ids, SchoolDay::at($person->school_id, $now), $now),
        );
    }

    public function offBoard(Person $person, Plan $plan, Person $actor): void
    {
        // Roles at other schools of the district end with the account they belong to.
        $this->ledger->apply(
            $plan,
            $person->school_id,
            $actor,
            Action::OffBoard,
            within: fn() => $this->shut($person),
            also: $this->coordinated($person->id),
        );
        AccountNotice::tell($person, 'closed');
    }

    /** What is in no ledger: passkeys, second factor, links under way, open sessions. */
    private function shut(Person $person): void
    {
        Passkeys::endAll($person->id);
        ResetLinks::closeAll($person->id);
        DB::table('sessions')->where('user_id', $person->id)->delete();
    }

    private function endOutside(Person $person, CredentialKind $kind, string $id, Person $actor): string
    {
        if ($kind === CredentialKind::Passkey) {
            return $this->endFactor($person, $actor, 'Passkey', 'A passkey was removed', function () use (
                $person,
                $id,
            ): string {
                $name = $this->passkeys->end($person, $id, false);

                return "The passkey “{$name}” of {$person->fullName()} is ended, and every open session.";
            });
        }
        if ($kind === CredentialKind::SecondFactor) {
            return $this->endFactor($person, $actor, 'Second factor', 'The second factor was removed', function () use (
                $person,
            ): string {
                if (!$this->secondFactors->remove($person, false)) {
                    throw new NotFoundHttpException();
                }

                return "The second factor of {$person->fullName()} is removed, and every open session ended.";
            });
        }
        if ($kind === CredentialKind::Link) {
            $done = DB::table('password_resets')
                ->where('id', $id)
                ->whereNull('used_at')
                ->whereIn(
                    'sign_in_id',
                    fn(Builder $q) => $q->select('id')->from('sign_ins')->where('person_id', $person->id),
                )
                ->update(['used_at' => now()]);

            return $done === 1 ? 'The link in that mail does not work any more.' : throw new NotFoundHttpException();
        }
        $session =
            $kind !== CredentialKind::Session
                ? null
                : DB::table('sessions')
                    ->where('user_id', $person->id)
                    ->pluck('id')
                    ->first(fn(mixed $s): bool => is_string($s) && hash_equals(SessionLine::keyOf($s), $id));
        if ($session === null) {
            throw new NotFoundHttpException();
        }
        DB::table('sessions')->where('id', $session)->delete();

        return 'That session is ended.';
    }

    /**
     * @param  string  $what as the title in the ledger begins
     * @param  string  $subject of the mail to its owner
     * @param  callable(): string  $end says what was done
     */
    private function endFactor(Person $person, Person $actor, string $what, string $subject, callable $end): string
    {
        $done = DB::transaction(function () use ($person, $actor, $what, $end): string {
            $done = $end();
            DB::table('sessions')->where('user_id', $person->id)->delete();
            $this->ledger->apply(
                new Plan("$what of {$person->fullName()} removed", $done, []),
                $person->school_id,
                $actor,
                Action::SecondFactor,
            );

            return $done;
        });
        AccountNotice::toStaff($person, $subject, [
            $done,
            'Your school did this. Where it asks for a second factor, the next sign-in sets one up again.',
        ]);

        return $done;
    }

    /**
     * @template T of Records\Record
     *
     * @param  class-string<T>  $kind
     * @param  callable(T): string  $ownerOf
     * @return T
     */
    private function own(string $kind, string $id, callable $ownerOf, Person $person): Records\Record
    {
        $row = $this->snapshots->find($kind, $id);

        return $row !== null && $ownerOf($row) === $person->id ? $row : throw new NotFoundHttpException();
    }

    private function records(Person $person, string $now): StaffRecords
    {
        $today = SchoolDay::at($person->school_id, $now);
        $mine = array_merge([$person->school_id], $this->coordinated($person->id));
        $teaching = $this->snapshots->list(
            Records\Enrollment::class,
            fn(Builder $q): Builder => $q
                ->where('person_id', $person->id)
                ->where('role', '!=', 'student')
                ->where(fn(Builder $o): Builder => $o->whereNull('ends_on')->orWhere('ends_on', '>', $today)),
        );
        $sections = [];
        foreach (
            $this->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->whereIn(
                    'id',
                    array_map(fn(Records\Enrollment $e): string => $e->sectionId(), $teaching),
                ),
            )
            as $section
        ) {
            $sections[$section->id] = $section;
        }
        $here = fn(Records\Enrollment $e): bool => in_array($sections[$e->sectionId()]->schoolId(), $mine, true);
        $elsewhere = array_values(
            array_filter(
                $teaching,
                fn(Records\Enrollment $e): bool => !$here($e) &&
                    $sections[$e->sectionId()]->state() === SectionState::Open,
            ),
        );
        $names = DB::table('schools')->pluck('name', 'id');

        return new StaffRecords(
            $this->signIns($person->id),
            $this->badges($person->id),
            $this->identities($person->id),
            $this->snapshots->list(
                Records\Coordinator::class,
                fn(Builder $q): Builder => $q->where('person_id', $person->id)->where('state', 'active'),
            ),
            $person->email === null
                ? []
                : $this->snapshots->list(
                    Records\Invitation::class,
                    fn(Builder $q): Builder => $q
                        ->where('email', $person->email)
                        ->where('state', 'invited')
                        ->whereIn(
                            'section_id',
                            fn(Builder $s) => $s->select('id')->from('sections')->whereIn('school_id', $mine),
                        ),
                ),
            array_values(array_filter($teaching, $here)),
            $this->snapshots->list(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->whereIn('section_id', array_map(strval(...), array_keys($sections)))
                    ->where('person_id', '!=', $person->id)
                    ->where('role', '!=', 'student')
                    ->where(fn(Builder $o): Builder => $o->whereNull('ends_on')->orWhere('ends_on', '>', $today)),
            ),
            $sections,
            array_map(
                fn(Records\Enrollment $e): string => $sections[$e->sectionId()]->name() .
                    ' at ' .
                    $names[$sections[$e->sectionId()]->schoolId()],
                $elsewhere,
            ),
        );
    }

    /** @return list<string> */
    private function coordinated(string $personId): array
    {
        return array_values(
            DB::table('coordinators')
                ->where('person_id', $personId)
                ->where('state', 'active')
                ->pluck('school_id')
                ->map(fn(mixed $id): string => (string) $id)
                ->all(),
        );
    }

    /** @return list<Records\SignIn> */
    private function signIns(string $personId): array
    {
        return $this->snapshots->list(
            Records\SignIn::class,
            fn(Builder $q): Builder => $q->where('person_id', $personId),
        );
    }

    /** @return list<Records\Badge> */
    private function badges(string $personId): array
    {
        return $this->snapshots->list(
            Records\Badge::class,
            fn(Builder $q): Builder => $q
                ->where('state', 'live')
                ->whereIn(
                    'sign_in_id',
                    fn(Builder $s) => $s->select('id')->from('sign_ins')->where('person_id', $personId),
                ),
        );
    }

    /** @return list<Records\Identity> */
    private function identities(string $personId): array
    {
        return $this->snapshots->list(
            Records\Identity::class,
            fn(Builder $q): Builder => $q->where('person_id', $personId),
        );
    }
}
