<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SignIn;

/**
 * Makes two accounts of one person one. The survivor keeps its id; the other stays in the database, marked as merged,
 * so that everything that was ever printed or recorded with it still leads to the person. All user names and badges of
 * both sign in to the survivor; enrollments and guardians unite.
 */
final class MergePlanner
{
    private const FIELDS = [
        'given_name' => 'Given name',
        'preferred_name' => 'Goes by',
        'family_name' => 'Family name',
        'birth_date' => 'Birth date',
        'number' => 'Student number',
        'grade' => 'Grade',
        'email' => 'E-mail',
    ];

    /**
     * @param array<string, string> $picks column to the id of the account whose value stays; the default stands where
     *     none is picked
     *
     * @return Planned<Merge>
     *
     * @throws Refusal where the two cannot be one
     */
    public static function plan(Snapshot $snapshot, string $aId, string $bId, array $picks = []): Planned
    {
        $a =
            $snapshot->find(Person::class, $aId) ?? throw new Refusal('One of the two accounts is not there any more.');
        $b =
            $snapshot->find(Person::class, $bId) ?? throw new Refusal('One of the two accounts is not there any more.');
        if ($a->id === $b->id || $a->state() === PersonState::Merged || $b->state() === PersonState::Merged) {
            throw new Refusal('These two have been merged already.');
        }
        if ($a->kind() !== $b->kind()) {
            throw new Refusal("A {$a->kind()->value} and a {$b->kind()->value} cannot be one account.");
        }
        [$keep, $drop] = self::survivor($snapshot, $a, $b);
        $plan = new PlanBuilder();
        // The one that goes first frees its number before the survivor takes it: the database allows a number once.
        $plan->update($drop, ['state' => 'merged', 'merged_into' => $keep->id], 'merged into ' . self::name($keep));
        foreach ($snapshot->where(Person::class, 'merged_into', $drop->id) as $earlier) {
            $plan->update($earlier, ['merged_into' => $keep->id], 'follows a merge');
        }
        $fields = self::fields($plan, $keep, $drop, $picks);
        $signIns = 0;
        foreach ($snapshot->where(SignIn::class, 'person_id', $drop->id) as $signIn) {
            $plan->update($signIn, ['person_id' => $keep->id], 'signs in to ' . self::name($keep));
            $signIns++;
        }
        foreach ($snapshot->where(Identity::class, 'person_id', $drop->id) as $identity) {
            $plan->update($identity, ['person_id' => $keep->id], 'signs in to ' . self::name($keep));
        }
        $enrollments = self::enrollments($plan, $snapshot, $keep, $drop);
        $guardians = self::guardianships($plan, $snapshot, $keep, $drop, 'student_id', 'guardian_id');
        $children = self::guardianships($plan, $snapshot, $keep, $drop, 'guardian_id', 'student_id');
        $more = array_values(
            array_filter([
                $enrollments > 0 ? Words::count($enrollments, 'section') : '',
                $guardians > 0 ? Words::count($guardians, 'guardian') : '',
                $children > 0 ? Words::count($children, 'child', 'children') : '',
                $signIns > 0 ? Words::count($signIns, 'user name') : '',
            ]),
        );

        $built = $plan->build(
            'Merge ' . self::name($drop) . ' into ' . self::name($keep),
            'The two become one account' .
                ($more === [] ? '' : ', with ' . Words::join($more) . ' of the other') .
                ($signIns > 0 ? '. Both old cards and both user names go on working.' : '.'),
            [
                new Tally('sections', $enrollments, 'sections brought over'),
                $keep->kind() === PersonKind::Guardian
                    ? new Tally('children', $children, 'children brought over')
                    : new Tally('guardians', $guardians, 'guardians brought over'),
                new Tally('user_names', $signIns, 'user names brought over'),
            ],
        );

        return new Planned($built, new Merge($keep->id, $drop->id, $fields));
    }

    /**
     * The account with more evidence of use stays: it has been signed in to last, then more enrollments, then a number,
     * then the one made first.
     *
     * @return array{Person, Person} who stays, who goes
     */
    private static function survivor(Snapshot $snapshot, Person $a, Person $b): array
    {
        $use = function (Person $p) use ($snapshot): array {
            $last = '';
            foreach ($snapshot->where(SignIn::class, 'person_id', $p->id) as $signIn) {
                $last = max($last, (string) $signIn->lastSignedInAt());
            }

            return [
                $p->state() === PersonState::Active ? 1 : 0,
                $last,
                count($snapshot->where(Enrollment::class, 'person_id', $p->id)),
                $p->number() === null ? 0 : 1,
            ];
        };
        $order = $use($a) <=> $use($b);
        if ($order === 0) {
            $order = $b->id <=> $a->id;
        }

        return $order >= 0 ? [$a, $b] : [$b, $a];
    }

    /**
     * @param  array<string, string>  $picks
     * @return list<MergedField>
     */
    private static function fields(PlanBuilder $plan, Person $keep, Person $drop, array $picks): array
    {
        /** @var array<string, string|null> $values */
        $values = [];
        $fields = [];
        foreach (self::FIELDS as $column => $label) {
            $mine = $keep->field($column);
            $theirs = $drop->field($column);
            // Never a blank over a value; a full name over one cut short; else the survivor's own.
            $default =
                $mine === null ||
                ($theirs !== null &&
                    $mine !== $theirs &&
                    str_starts_with(mb_strtolower($theirs), mb_strtolower($mine)) &&
                    in_array($column, ['given_name', 'family_name'], true))
                    ? $theirs
                    : $mine;
            $picked = match ($picks[$column] ?? null) {
                $keep->id => $mine,
                $drop->id => $theirs,
                default => $default,
            };
            $values[$column] = $stays = $picked ?? ($mine ?? $theirs);
            if ($column === 'email' && $stays !== $mine) {
                // What is known of an address goes with it.
                foreach (['email_state', 'email_by', 'email_at'] as $of) {
                    $values[$of] = $drop->field($of);
                }
                $values['email_state'] ??= 'claimed';
            }
            $field = new MergedField($column, $label, $mine ?? '', $theirs ?? '', (string) $stays);
            $fields[] = $field;
            $plan->row(
                new PlanRow(count($fields), $field->agrees() ? Verdict::Same : Verdict::Update, [
                    'Field' => Cell::same($label),
                    'Stays' => new Cell($field->survivor, $field->stays),
                    'Other account' => Cell::same($field->other),
                ]),
            );
        }
        foreach (['given_name', 'family_name'] as $column) {
            $values[$column] ??= '';
        }
        $values['search_name'] = (new PersonName($values['given_name'], $values['family_name']))->searchKey();
        $values['state'] =
            $keep->state() === PersonState::Active || $drop->state() === PersonState::Active
                ? PersonState::Active->value
                : $keep->state()->value;
        $plan->update($keep, $values, 'merged with ' . self::name($drop));

        return $fields;
    }

    private static function enrollments(PlanBuilder $plan, Snapshot $snapshot, Person $keep, Person $drop): int
    {
        $mine = [];
        foreach ($snapshot->where(Enrollment::class, 'person_id', $keep->id) as $enrollment) {
            $mine[$enrollment->sectionId()][] = $enrollment;
        }
        $brought = 0;
        foreach ($snapshot->where(Enrollment::class, 'person_id', $drop->id) as $theirs) {
            $span = new Span($theirs->beginsOn(), $theirs->endsOn());
            foreach ($mine[$theirs->sectionId()] ?? [] as $own) {
                $ownSpan = new Span($own->beginsOn(), $own->endsOn());
                if ($ownSpan->touches($span)) {
                    $both = $ownSpan->united($span);
                    $plan->update(
                        $own,
                        ['begins_on' => $both->begins, 'ends_on' => $both->ends],
                        'dates of both accounts',
                    );
                    // Left with the other account as a span without a day: it counts nowhere, and undo can bring it
                    // back.
                    $plan->update($theirs, ['ends_on' => $theirs->beginsOn()], 'covered by the other account');

                    continue 2;
                }
            }
            $plan->update($theirs, ['person_id' => $keep->id], 'brought over');
            $brought++;
        }

        return $brought;
    }

    /** Guardians of a student, and children of a guardian: what both have stays where it is. */
    private static function guardianships(
        PlanBuilder $plan,
        Snapshot $snapshot,
        Person $keep,
        Person $drop,
        string $own,
        string $other,
    ): int {
        $mine = [];
        foreach ($snapshot->where(Guardianship::class, $own, $keep->id) as $link) {
            $mine[(string) $link->field($other)] = true;
        }
        $brought = 0;
        foreach ($snapshot->where(Guardianship::class, $own, $drop->id) as $link) {
            if (!isset($mine[(string) $link->field($other)])) {
                $plan->update($link, [$own => $keep->id], 'brought over');
                $brought++;
            }
        }

        return $brought;
    }

    private static function name(Person $person): string
    {
        return $person->fullName();
    }
}
