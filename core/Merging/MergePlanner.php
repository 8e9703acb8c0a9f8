<?php

declare(strict_types=1);

namespace Vantrel\Core\Merging;

use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;

/**
 * Makes two accounts of one person one. The survivor keeps its id; the other stays in the database, marked as merged, so
 * that everything that was ever printed or recorded with it still leads to the person. All user names and badges of both
 * sign in to the survivor; enrollments and guardians unite.
 */
final class MergePlanner
{
    private const FIELDS = ['given_name' => 'Given name', 'family_name' => 'Family name', 'birth_date' => 'Birth date', 'number' => 'Student number', 'grade' => 'Grade', 'email' => 'E-mail'];

    /**
     * @param  array<string, string>  $picks column to the id of the account whose value stays; the default stands where none is picked
     *
     * @throws Refusal where the two cannot be one
     */
    public static function plan(Snapshot $snapshot, string $aId, string $bId, array $picks = []): Plan
    {
        $a = $snapshot->find(Entity::Person, $aId) ?? throw new Refusal('One of the two accounts is not there any more.');
        $b = $snapshot->find(Entity::Person, $bId) ?? throw new Refusal('One of the two accounts is not there any more.');
        if ($a->id === $b->id || $a->text('state') === 'merged' || $b->text('state') === 'merged') {
            throw new Refusal('These two have been merged already.');
        }
        if ($a->text('kind') !== $b->text('kind')) {
            throw new Refusal("A {$a->text('kind')} and a {$b->text('kind')} cannot be one account.");
        }
        [$keep, $drop] = self::survivor($snapshot, $a, $b);
        $plan = new PlanBuilder;
        // The one that goes first frees its number before the survivor takes it: the database allows a number once.
        $plan->update(Entity::Person, $drop, ['state' => 'merged', 'merged_into' => $keep->id], 'merged into '.self::name($keep));
        foreach ($snapshot->where(Entity::Person, 'merged_into', $drop->id) as $earlier) {
            $plan->update(Entity::Person, $earlier, ['merged_into' => $keep->id], 'follows a merge');
        }
        self::fields($plan, $keep, $drop, $picks);
        $signIns = 0;
        foreach ($snapshot->where(Entity::SignIn, 'person_id', $drop->id) as $signIn) {
            $plan->update(Entity::SignIn, $signIn, ['person_id' => $keep->id], 'signs in to '.self::name($keep));
            $signIns++;
        }
        foreach ($snapshot->where(Entity::Identity, 'person_id', $drop->id) as $identity) {
            $plan->update(Entity::Identity, $identity, ['person_id' => $keep->id], 'signs in to '.self::name($keep));
        }
        $enrollments = self::enrollments($plan, $snapshot, $keep, $drop);
        $guardians = self::guardians($plan, $snapshot, $keep, $drop);
        $more = array_values(array_filter([
            $enrollments > 0 ? Words::count($enrollments, 'section') : '',
            $guardians > 0 ? Words::count($guardians, 'guardian') : '',
            $signIns > 0 ? Words::count($signIns, 'user name') : '',
        ]));

        return $plan->build(
            'Merge '.self::name($drop).' into '.self::name($keep),
            'The two become one account'.($more === [] ? '' : ', with '.Words::join($more).' of the other').'. Both old cards and both user names go on working.',
            [new Tally('sections', $enrollments, 'sections brought over'), new Tally('guardians', $guardians, 'guardians brought over'), new Tally('user_names', $signIns, 'user names brought over')],
        );
    }

    /**
     * The account with more evidence of use stays: it has been signed in to last, then more enrollments, then a number,
     * then the one made first.
     *
     * @return array{Row, Row} who stays, who goes
     */
    private static function survivor(Snapshot $snapshot, Row $a, Row $b): array
    {
        $use = function (Row $p) use ($snapshot): array {
            $last = '';
            foreach ($snapshot->where(Entity::SignIn, 'person_id', $p->id) as $signIn) {
                $last = max($last, $signIn->text('last_signed_in_at'));
            }

            return [$p->text('state') === 'active' ? 1 : 0, $last, count($snapshot->where(Entity::Enrollment, 'person_id', $p->id)), $p->maybe('number') === null ? 0 : 1];
        };
        $order = $use($a) <=> $use($b);
        if ($order === 0) {
            $order = $b->id <=> $a->id;
        }

        return $order >= 0 ? [$a, $b] : [$b, $a];
    }

    /** @param  array<string, string>  $picks */
    private static function fields(PlanBuilder $plan, Row $keep, Row $drop, array $picks): void
    {
        /** @var array<string, string|null> $values */
        $values = [];
        $n = 0;
        foreach (self::FIELDS as $column => $label) {
            $mine = $keep->maybe($column);
            $theirs = $drop->maybe($column);
            // Never a blank over a value; a full name over one cut short; else the survivor's own.
            $default = $mine === null || ($theirs !== null && $mine !== $theirs && str_starts_with(mb_strtolower($theirs), mb_strtolower($mine)) && in_array($column, ['given_name', 'family_name'], true)) ? $theirs : $mine;
            $picked = match ($picks[$column] ?? null) {
                $keep->id => $mine,
                $drop->id => $theirs,
                default => $default,
            };
            $values[$column] = $stays = $picked ?? $mine ?? $theirs;
            if ($column === 'email' && $stays !== $mine) {
                // What is known of an address goes with it.
                foreach (['email_state', 'email_by', 'email_at'] as $of) {
                    $values[$of] = $drop->maybe($of);
                }
                $values['email_state'] ??= 'claimed';
            }
            $plan->row(new PlanRow(++$n, ($mine ?? '') === ($theirs ?? '') ? Verdict::Same : Verdict::Update, [
                'Field' => Cell::same($label), 'Stays' => new Cell($mine ?? '', (string) $stays), 'Other account' => Cell::same($theirs ?? ''),
            ]));
        }
        foreach (['given_name', 'family_name'] as $column) {
            $values[$column] ??= '';
        }
        $values['search_name'] = (new PersonName($values['given_name'], $values['family_name']))->searchKey();
        $values['state'] = $keep->text('state') === 'active' || $drop->text('state') === 'active' ? 'active' : $keep->text('state');
        $plan->update(Entity::Person, $keep, $values, 'merged with '.self::name($drop));
    }

    private static function enrollments(PlanBuilder $plan, Snapshot $snapshot, Row $keep, Row $drop): int
    {
        $mine = [];
        foreach ($snapshot->where(Entity::Enrollment, 'person_id', $keep->id) as $enrollment) {
            $mine[$enrollment->text('section_id')][] = $enrollment;
        }
        $brought = 0;
        foreach ($snapshot->where(Entity::Enrollment, 'person_id', $drop->id) as $theirs) {
            $span = new Span($theirs->text('begins_on'), $theirs->maybe('ends_on'));
            foreach ($mine[$theirs->text('section_id')] ?? [] as $own) {
                $ownSpan = new Span($own->text('begins_on'), $own->maybe('ends_on'));
                if ($ownSpan->touches($span)) {
                    $both = $ownSpan->united($span);
                    $plan->update(Entity::Enrollment, $own, ['begins_on' => $both->begins, 'ends_on' => $both->ends], 'dates of both accounts');
                    // Left with the other account as a span without a day: it counts nowhere, and undo can bring it back.
                    $plan->update(Entity::Enrollment, $theirs, ['ends_on' => $theirs->text('begins_on')], 'covered by the other account');

                    continue 2;
                }
            }
            $plan->update(Entity::Enrollment, $theirs, ['person_id' => $keep->id], 'brought over');
            $brought++;
        }

        return $brought;
    }

    private static function guardians(PlanBuilder $plan, Snapshot $snapshot, Row $keep, Row $drop): int
    {
        $mine = [];
        foreach ($snapshot->where(Entity::Guardianship, 'student_id', $keep->id) as $link) {
            $mine[$link->text('guardian_id')] = true;
        }
        $brought = 0;
        foreach ($snapshot->where(Entity::Guardianship, 'student_id', $drop->id) as $link) {
            if (! isset($mine[$link->text('guardian_id')])) {
                $plan->update(Entity::Guardianship, $link, ['student_id' => $keep->id], 'brought over');
                $brought++;
            }
        }

        return $brought;
    }

    private static function name(Row $person): string
    {
        return trim($person->text('given_name').' '.$person->text('family_name'));
    }
}
