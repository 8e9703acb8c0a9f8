<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use LogicException;
use Vantrel\Core\Accounts\SchoolChange;
use Vantrel\Core\Accounts\UnprovenSecrets;
use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Guardians\Ties;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RoleState;
use Vantrel\Core\Records\SignIn;

/**
 * Makes the accounts of one person one. The survivor keeps its id; the others stay in the database, marked as merged,
 * so that everything that was ever printed or recorded with them still leads to the person. All user names and badges
 * sign in to the survivor; enrollments and guardians unite.
 */
final class MergePlanner
{
    /** As many can be one person in a plan: what stands side by side before whoever looks. */
    public const MOST = 5;

    /**
     * @param  list<string>  $ids of two to {@see MOST} accounts
     * @param array<string, string> $picks column to the id of the account whose value stays; the default stands where
     *     none is picked
     * @param list<string> $reach schools that whoever merges coordinates: nobody gives away what coordinates others
     * @param string $today YYYY-MM-DD: a student of several schools leaves the sections of those that do not stay
     *
     * @return Planned<Merge>
     *
     * @throws Refusal where they cannot be one, or not by them
     */
    public static function plan(
        Snapshot $snapshot,
        array $ids,
        array $picks = [],
        array $reach = [],
        string $today = '',
    ): Planned {
        $accounts = self::accounts($snapshot, $ids);
        self::mustReach($snapshot, $accounts, $reach);
        [$keep, $drops, $why] = self::survivor($snapshot, $accounts);
        $plan = new PlanBuilder();
        $enrollments = $guardians = $children = $signIns = 0;
        $spans = self::spans($snapshot, $keep);
        $covered = [];
        $links = ['student_id' => [], 'guardian_id' => []];
        $unproven = UnprovenSecrets::end($plan, $snapshot, $accounts);
        foreach ($drops as $drop) {
            // The ones that go first free their numbers before the survivor takes one: the database allows it once.
            $plan->update($drop, ['state' => 'merged', 'merged_into' => $keep->id], 'merged into ' . self::name($keep));
        }
        $fields = FieldChoice::write($plan, $snapshot, $keep, $drops, $picks);
        foreach ($drops as $drop) {
            foreach ($snapshot->where(Person::class, 'merged_into', $drop->id) as $earlier) {
                $plan->update($earlier, ['merged_into' => $keep->id], 'follows a merge');
            }
            foreach ($snapshot->where(SignIn::class, 'person_id', $drop->id) as $signIn) {
                $plan->update($signIn, ['person_id' => $keep->id], 'signs in to ' . self::name($keep));
                $signIns++;
            }
            foreach ($snapshot->where(Identity::class, 'person_id', $drop->id) as $identity) {
                $plan->update($identity, ['person_id' => $keep->id], 'signs in to ' . self::name($keep));
            }
            self::coordinators($plan, $snapshot, $keep, $drop);
            $enrollments += self::enrollments($plan, $snapshot, $keep, $drop, $spans, $covered);
            $guardians += self::guardianships($plan, $snapshot, $keep, $drop, ['student_id', 'guardian_id'], $links);
            $children += self::guardianships($plan, $snapshot, $keep, $drop, ['guardian_id', 'student_id'], $links);
        }
        [$at, $ended] = self::leave($plan, $snapshot, $accounts, $fields, $covered, $today);
        $more = array_values(
            array_filter([
                $enrollments > 0 ? Words::count($enrollments, 'section') : '',
                $guardians > 0 ? Words::count($guardians, 'guardian') : '',
                $children > 0 ? Words::count($children, 'child', 'children') : '',
                $signIns > 0 ? Words::count($signIns, 'user name') : '',
            ]),
        );
        $many = count($drops) > 1;
        $but = $unproven ? ', but for a password chosen at the door' : '';
        $count = count($accounts);

        $built = $plan->build(
            'Merge ' . ($many ? count($drops) . ' accounts' : self::name($drops[0])) . ' into ' . self::name($keep),
            ($many ? "The $count become one account" : 'The two become one account') .
                ($more === [] ? '' : ', with ' . Words::join($more) . ($many ? ' of the others' : ' of the other')) .
                ($signIns > 0 ? '. All old cards and user names go on working' . $but . '.' : '.') .
                ($at === '' ? '' : " The person is at $at.") .
                ($ended === [] ? '' : ' What they were in elsewhere ends today: ' . Words::some($ended) . '.'),
            [
                new Tally('sections', $enrollments, 'sections brought over'),
                $keep->kind() === PersonKind::Guardian
                    ? new Tally('children', $children, 'children brought over')
                    : new Tally('guardians', $guardians, 'guardians brought over'),
                new Tally('user_names', $signIns, 'user names brought over'),
            ],
        );

        return new Planned(
            $built,
            new Merge($keep->id, array_map(fn(Person $d): string => $d->id, $drops), $why, $fields, $unproven),
        );
    }

    /**
     * @param  list<string>  $ids
     * @return list<Person>
     */
    private static function accounts(Snapshot $snapshot, array $ids): array
    {
        $accounts = array_map(
            fn(string $id): Person => $snapshot->find(Person::class, $id) ??
                throw new Refusal('One of the accounts is not there any more.'),
            $ids,
        );
        if (count(array_unique($ids)) < max(2, count($ids)) || count($ids) > self::MOST) {
            throw new Refusal('Name two to ' . self::MOST . ' accounts, each once.');
        }
        foreach ($accounts as $account) {
            if ($account->state() === PersonState::Merged) {
                throw new Refusal(self::name($account) . ' has been merged already.');
            }
            if ($account->kind() !== $accounts[0]->kind()) {
                throw new Refusal(
                    "A {$accounts[0]->kind()->value} and a {$account->kind()->value} cannot be one account.",
                );
            }
        }

        return $accounts;
    }

    /**
     * @param  list<Person>  $accounts
     * @param  list<string>  $reach
     */
    private static function mustReach(Snapshot $snapshot, array $accounts, array $reach): void
    {
        foreach ($accounts as $account) {
            foreach ($snapshot->where(Coordinator::class, 'person_id', $account->id) as $coordinator) {
                if ($coordinator->state() === RoleState::Active && !in_array($coordinator->schoolId(), $reach, true)) {
                    throw new Refusal(
                        self::name($account) . ' coordinates another school too. Ask a coordinator of that school.',
                    );
                }
            }
        }
    }

    /** What the other coordinates, the survivor does; what both do stays where it is. */
    private static function coordinators(PlanBuilder $plan, Snapshot $snapshot, Person $keep, Person $drop): void
    {
        $own = array_map(
            fn(Coordinator $c): string => $c->schoolId(),
            $snapshot->where(Coordinator::class, 'person_id', $keep->id),
        );
        foreach ($snapshot->where(Coordinator::class, 'person_id', $drop->id) as $coordinator) {
            if (!in_array($coordinator->schoolId(), $own, true)) {
                $plan->update($coordinator, ['person_id' => $keep->id], 'brought over');
            }
        }
    }

    /**
     * The account with more evidence of use stays: it is active, has been signed in to last, then more enrollments,
     * then a number, then the one made first.
     *
     * @param  list<Person>  $accounts
     * @return array{Person, non-empty-list<Person>, string} who stays, who goes, the next likeliest first, and why
     */
    private static function survivor(Snapshot $snapshot, array $accounts): array
    {
        $use = [];
        foreach ($accounts as $p) {
            $last = '';
            foreach ($snapshot->where(SignIn::class, 'person_id', $p->id) as $signIn) {
                $last = max($last, (string) $signIn->lastSignedInAt());
            }
            $use[$p->id] = [
                'still active' => $p->state() === PersonState::Active ? 1 : 0,
                'signed in last' => $last,
                'in more sections' => count($snapshot->where(Enrollment::class, 'person_id', $p->id)),
                'has a number' => $p->number() === null ? 0 : 1,
            ];
        }
        usort(
            $accounts,
            fn(Person $a, Person $b): int => [...array_values($use[$b->id]), $a->id] <=> [
                ...array_values($use[$a->id]),
                $b->id,
            ],
        );
        $keep = array_shift($accounts);
        if ($keep === null || $accounts === []) {
            throw new LogicException('Two accounts at least become one.');
        }
        $why = 'made first';
        foreach ($use[$keep->id] as $word => $value) {
            if ($value !== $use[$accounts[0]->id][$word]) {
                $why = $word;

                break;
            }
        }

        return [$keep, $accounts, $why];
    }

    /**
     * A student of several schools is at one of them from now on: what they were in at the others ends, as with any
     * transfer, and guardians go along.
     *
     * @param  list<Person>  $accounts
     * @param  list<MergedField>  $fields
     * @param  array<string, true>  $covered ids of enrollments that count no more
     * @return array{string, list<string>} name of the school, '' where there was but one, and of the sections that end
     */
    private static function leave(
        PlanBuilder $plan,
        Snapshot $snapshot,
        array $accounts,
        array $fields,
        array $covered,
        string $today,
    ): array {
        $of = array_values(array_filter($fields, fn(MergedField $f): bool => $f->column === 'school_id'));
        if ($of === [] || $accounts[0]->kind() !== PersonKind::Student) {
            return [$of === [] ? '' : $of[0]->stays, []];
        }
        $left = $enrollments = [];
        $at = '';
        foreach ($accounts as $account) {
            if ($of[0]->values[$account->id] === $of[0]->stays) {
                $at = $account->schoolId();
            } else {
                $left[$account->id] = $account;
            }
            foreach ($snapshot->where(Enrollment::class, 'person_id', $account->id) as $enrollment) {
                if (!isset($covered[$enrollment->id])) {
                    $enrollments[] = $enrollment;
                }
            }
        }

        SchoolChange::guardians($plan, $snapshot, $left, $at);
        $schools = array_values(array_map(fn(Person $p): string => $p->schoolId(), $left));

        return [
            $of[0]->stays,
            SchoolChange::endSections($plan, $snapshot, $enrollments, $schools, $today, "at {$of[0]->stays} now"),
        ];
    }

    /** @return array<string, list<array{Enrollment, Span}>> the survivor's, by section */
    private static function spans(Snapshot $snapshot, Person $keep): array
    {
        $spans = [];
        foreach ($snapshot->where(Enrollment::class, 'person_id', $keep->id) as $own) {
            $spans[$own->sectionId()][] = [$own, new Span($own->beginsOn(), $own->endsOn())];
        }

        return $spans;
    }

    /**
     * @param  array<string, list<array{Enrollment, Span}>>  $spans what the survivor has so far, by section
     * @param  array<string, true>  $covered ids of those that count no more
     * @return int how many came over
     */
    private static function enrollments(
        PlanBuilder $plan,
        Snapshot $snapshot,
        Person $keep,
        Person $drop,
        array &$spans,
        array &$covered,
    ): int {
        $brought = 0;
        foreach ($snapshot->where(Enrollment::class, 'person_id', $drop->id) as $theirs) {
            $span = new Span($theirs->beginsOn(), $theirs->endsOn());
            foreach ($spans[$theirs->sectionId()] ?? [] as $i => [$own, $ownSpan]) {
                if ($ownSpan->touches($span)) {
                    $both = $ownSpan->united($span);
                    $spans[$theirs->sectionId()][$i] = [$own, $both];
                    $plan->update(
                        $own,
                        [
                            'begins_on' => $both->begins,
                            'ends_on' => $both->ends,
                            'role' => $own->role()->over($theirs->role())->value,
                        ],
                        'dates of the accounts together',
                    );
                    // Left with the other account as a span without a day: it counts nowhere, and undo can bring it
                    // back.
                    $plan->update($theirs, ['ends_on' => $theirs->beginsOn()], 'covered by the other account');
                    $covered[$theirs->id] = true;

                    continue 2;
                }
            }
            $plan->update($theirs, ['person_id' => $keep->id], 'brought over');
            $spans[$theirs->sectionId()][] = [$theirs, $span];
            $brought++;
        }

        return $brought;
    }

    /**
     * Guardians of a student, and children of a guardian: what both have stays where it is, as it stands with both.
     *
     * @param  array{string, string}  $columns of the account, and of whom it is tied to
     * @param array<string, array<string, array{Guardianship, Guardianship}>> $links ties of the survivor so far, by the
     *     first column and whom they tie to: as they were read, and as they stand in the plan
     */
    private static function guardianships(
        PlanBuilder $plan,
        Snapshot $snapshot,
        Person $keep,
        Person $drop,
        array $columns,
        array &$links,
    ): int {
        [$own, $other] = $columns;
        foreach ($snapshot->where(Guardianship::class, $own, $keep->id) as $link) {
            $links[$own][(string) $link->field($other)] ??= [$link, $link];
        }
        $brought = 0;
        foreach ($snapshot->where(Guardianship::class, $own, $drop->id) as $link) {
            $known = $links[$own][(string) $link->field($other)] ?? null;
            if ($known === null) {
                $plan->update($link, [$own => $keep->id], 'brought over');
                $links[$own][(string) $link->field($other)] = [$link, $link];
                $brought++;

                continue;
            }
            // Who may not be reached through one account may not be reached through both.
            [$stays, $as] = $known;
            $united = Ties::united($as, $link);
            if ($united !== []) {
                $plan->update($stays, $united, 'brought over');
                $links[$own][(string) $link->field($other)] = [$stays, $as->with($united)];
            }
        }

        return $brought;
    }

    private static function name(Person $person): string
    {
        return $person->fullName();
    }
}
