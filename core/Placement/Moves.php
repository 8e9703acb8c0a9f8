<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;

/**
 * Moving, also enrolling and removing students as of a day, many at once. Intervals are half-open: who moves on a day is in
 * the new section on that day and was in the old one until the day before. Rosters of earlier days stay as they were.
 */
final class Moves
{
    /**
     * @param  list<Row>  $people students, in the order to show
     * @param  Row|null  $from left out where students who are in no section are placed
     * @param  Row|null  $to left out where they are removed
     * @param  array<string, list<Row>>  $enrollments as students, of these people, by person
     * @param  array<string, Row>  $sections all that these enrollments are in, by id, and $to: for clashes
     * @param  int  $seated how many students $to has on that day
     * @param  string  $day YYYY-MM-DD, the first day of what comes after
     *
     * @throws Refusal
     */
    public static function plan(MoveKind $kind, array $people, ?Row $from, ?Row $to, array $enrollments, array $sections, int $seated, string $day, Ids $ids): Plan
    {
        if ($people === []) {
            throw new Refusal('Choose at least one student.');
        }
        if ($kind !== MoveKind::Remove) {
            Enrolling::mustBeOpen($to ?? throw new Refusal('Choose the section they come into.', 'to'));
        }
        if ($kind !== MoveKind::Also) {
            Enrolling::mustBeOpen($from ?? throw new Refusal('Choose the section they leave.', 'from'));
        }
        if ($from !== null && $to !== null && $from->id === $to->id) {
            throw new Refusal('They are in that section already. Choose another.', 'to');
        }
        $into = $kind === MoveKind::Remove ? null : $to;
        $outOf = $kind === MoveKind::Also ? null : $from;
        $toName = (string) $into?->text('name');
        $fromName = (string) $outOf?->text('name');
        $plan = new PlanBuilder;
        $in = $out = $same = 0;
        foreach ($people as $number => $person) {
            $own = $enrollments[$person->id] ?? [];
            $left = $outOf === null ? null : self::current($own, $outOf->id, $day);
            $comes = $into !== null && ! Enrolling::isIn($into->id, $own, $day);
            $why = match (true) {
                $person->text('kind') !== 'student' || ! in_array($person->text('state'), ['active', 'reserve'], true) => 'not an active student',
                $outOf !== null && $left === null => "not in $fromName on that day",
                $outOf === null && ! $comes => "in $toName already",
                default => '',
            };
            if ($why !== '') {
                $same++;
                $plan->row(new PlanRow($number + 1, Verdict::Same, ['Student' => Cell::same(Enrolling::name($person)), 'Section' => Cell::same('')], $why));

                continue;
            }
            if ($left !== null) {
                // One that has not begun by then never counts: it ends as it begins.
                $plan->update(Entity::Enrollment, $left, ['ends_on' => max($day, $left->text('begins_on'))], $into !== null ? "moved to $toName" : 'taken out');
                $out++;
            }
            if ($comes) {
                Enrolling::insert($plan, $into->id, $person->id, 'student', $kind === MoveKind::Move ? 'move' : 'hand', $ids, $day);
                $in++;
            }
            $clash = ! $comes ? '' : self::clash($into, $own, $sections, $left?->id, $day);
            $plan->row(new PlanRow($number + 1, $kind === MoveKind::Remove ? Verdict::Leaving : ($kind === MoveKind::Move ? Verdict::Update : Verdict::New), [
                'Student' => Cell::same(Enrolling::name($person)),
                'Section' => new Cell($fromName, $toName),
            ], $clash));
            if ($clash !== '') {
                $plan->warn(Enrolling::name($person).": $clash");
            }
        }
        self::warnOfSize($plan, $into, $seated, $in);

        return $plan->build(self::title($kind, $fromName, $toName), self::sentence($kind, $fromName, $toName, $kind === MoveKind::Also ? $in : $out, $day), array_values(array_filter([
            new Tally('in', $in, "into $toName"), new Tally('out', $out, "out of $fromName"), new Tally('same', $same, 'left as they are'),
        ], fn (Tally $t): bool => $t->count > 0)));
    }

    /** @param  list<Row>  $enrollments */
    private static function current(array $enrollments, string $sectionId, string $day): ?Row
    {
        foreach ($enrollments as $enrollment) {
            if ($enrollment->text('section_id') === $sectionId && ($enrollment->maybe('ends_on') === null || $enrollment->text('ends_on') > $day)) {
                return $enrollment;
            }
        }

        return null;
    }

    /**
     * @param  list<Row>  $enrollments
     * @param  array<string, Row>  $sections
     */
    private static function clash(Row $to, array $enrollments, array $sections, ?string $leaving, string $day): string
    {
        if ($to->maybe('period') === null) {
            return '';
        }
        $at = [];
        foreach ($enrollments as $enrollment) {
            $section = $sections[$enrollment->text('section_id')] ?? null;
            if ($section !== null && $section->id !== $to->id && $enrollment->id !== $leaving && $section->text('state') === 'open' && $section->text('period') === $to->text('period')
                && $section->text('school_year_id') === $to->text('school_year_id') && ($enrollment->maybe('ends_on') === null || $enrollment->text('ends_on') > $day)) {
                $at[] = $section->text('name');
            }
        }

        return $at === [] ? '' : 'period '.$to->text('period').' clashes with '.Words::join($at);
    }

    private static function warnOfSize(PlanBuilder $plan, ?Row $to, int $seated, int $in): void
    {
        if ($to?->maybe('seats') !== null && $seated + $in > (int) $to->text('seats')) {
            $plan->warn("{$to->text('name')} would have ".Words::count($seated + $in, 'student').' for '.Words::count((int) $to->text('seats'), 'seat').'.');
        }
    }

    private static function title(MoveKind $kind, string $from, string $to): string
    {
        return match ($kind) {
            MoveKind::Move => "From $from to $to",
            MoveKind::Also => "Into $to",
            MoveKind::Remove => "Out of $from",
        };
    }

    private static function sentence(MoveKind $kind, string $from, string $to, int $n, string $day): string
    {
        $who = Words::count($n, 'student');
        $day = Words::day($day);
        $s = $n === 1 ? 's' : '';

        return match ($kind) {
            MoveKind::Move => "$who move$s from $from to $to on $day. Rosters of the days before stay as they are.",
            MoveKind::Also => "$who come$s into $to on $day and stay$s in every other section.",
            MoveKind::Remove => "$who leave$s $from on $day. Accounts and cards stay.",
        };
    }
}
