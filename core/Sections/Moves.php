<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/**
 * Moving, also enrolling and removing students as of a day, many at once. Intervals are half-open: who moves on a day
 * is in the new section on that day and was in the old one until the day before. Rosters of earlier days stay as they
 * were.
 */
final class Moves
{
    /**
     * @param  array<string, list<Enrollment>>  $enrollments as students, of these people, by person
     * @param  array<string, Section>  $sections all that these enrollments are in, by id, and the one come into: for
     *     clashes
     * @param  int  $seated how many students the one come into has on that day
     */
    public static function plan(Move $move, array $enrollments, array $sections, int $seated, Ids $ids): Plan
    {
        [$kind, $into, $outOf, $day] = [$move->kind, $move->into, $move->outOf, $move->day];
        $toName = (string) $into?->name();
        $fromName = (string) $outOf?->name();
        $names = fn(string $id): string => ($sections[$id] ?? null)?->name() ?? '';
        $plan = new PlanBuilder();
        $in = $out = $same = $changed = 0;
        foreach ($move->people as $number => $person) {
            $own = $enrollments[$person->id] ?? [];
            $leaves = match (true) {
                $outOf !== null => array_filter([self::current($own, $outOf->id, $day)]),
                $kind === MoveKind::Instead && $into !== null => self::others($own, $into, $sections, $day),
                default => [],
            };
            $comes = $into !== null && !Enrolling::isIn($into->id, $own, $day);
            $why = match (true) {
                $person->kind() !== PersonKind::Student ||
                    !in_array($person->state(), [PersonState::Active, PersonState::Reserve], true)
                    => 'not an active student',
                $outOf !== null && $leaves === [] => "not in $fromName on that day",
                $outOf === null && !$comes && $leaves === [] => "in $toName already",
                default => '',
            };
            if ($why !== '') {
                $same++;
                $plan->row(
                    new PlanRow(
                        $number + 1,
                        Verdict::Same,
                        ['Student' => Cell::same($person->fullName()), 'Section' => Cell::same('')],
                        $why,
                    ),
                );

                continue;
            }
            foreach ($leaves as $left) {
                // One that has not begun by then never counts: it ends as it begins.
                $plan->update(
                    $left,
                    ['ends_on' => max($day, $left->beginsOn())],
                    $into !== null ? "moved to $toName" : 'taken out',
                );
            }
            $out += $leaves === [] ? 0 : 1;
            $changed++;
            if ($comes) {
                Enrolling::insert(
                    $plan,
                    $ids,
                    new NewEnrollment(
                        $into->id,
                        $person->id,
                        'student',
                        $kind === MoveKind::Also ? 'hand' : 'move',
                        $day,
                    ),
                );
                $in++;
            }
            $clash = !$comes ? '' : self::clash($into, $own, $sections, $leaves, $day);
            $plan->row(
                new PlanRow(
                    $number + 1,
                    $kind === MoveKind::Remove
                        ? Verdict::Leaving
                        : ($kind === MoveKind::Also
                            ? Verdict::New
                            : Verdict::Update),
                    [
                        'Student' => Cell::same($person->fullName()),
                        'Section' => new Cell(
                            $kind === MoveKind::Instead
                                ? Words::join(array_map(fn(Enrollment $e): string => $names($e->sectionId()), $leaves))
                                : $fromName,
                            $toName,
                        ),
                    ],
                    $clash,
                ),
            );
            if ($clash !== '') {
                $plan->warn($person->fullName() . ": $clash");
            }
        }
        self::warnOfSize($plan, $into, $seated, $in);

        return $plan->build(
            self::title($kind, $fromName, $toName),
            self::sentence($kind, $fromName, $toName, $changed, $day),
            array_values(
                array_filter(
                    [
                        new Tally('in', $in, "into $toName"),
                        new Tally('out', $out, $fromName === '' ? 'out of another' : "out of $fromName"),
                        new Tally('same', $same, 'left as they are'),
                    ],
                    fn(Tally $t): bool => $t->count > 0,
                ),
            ),
        );
    }

    /** @param  list<Enrollment>  $enrollments */
    private static function current(array $enrollments, string $sectionId, string $day): ?Enrollment
    {
        foreach ($enrollments as $enrollment) {
            if ($enrollment->sectionId() === $sectionId && $enrollment->lastsBeyond($day)) {
                return $enrollment;
            }
        }

        return null;
    }

    /**
     * Those in open sections of the same kind.
     *
     * @param  list<Enrollment>  $enrollments
     * @param  array<string, Section>  $sections
     * @return list<Enrollment>
     */
    private static function others(array $enrollments, Section $into, array $sections, string $day): array
    {
        return array_values(
            array_filter(
                $enrollments,
                fn(Enrollment $e): bool => $e->sectionId() !== $into->id &&
                    $e->lastsBeyond($day) &&
                    ($sections[$e->sectionId()] ?? null)?->kind() === $into->kind() &&
                    $sections[$e->sectionId()]->state() === SectionState::Open,
            ),
        );
    }

    /**
     * @param  list<Enrollment>  $enrollments
     * @param  array<string, Section>  $sections
     * @param  array<int, Enrollment>  $leaves those that end with the move
     */
    private static function clash(Section $to, array $enrollments, array $sections, array $leaves, string $day): string
    {
        $at = [];
        foreach ($enrollments as $enrollment) {
            $section = $sections[$enrollment->sectionId()] ?? null;
            if (
                $section !== null &&
                !in_array($enrollment, $leaves, true) &&
                $enrollment->lastsBeyond($day) &&
                Periods::clash($section, $to)
            ) {
                $at[] = $section->name();
            }
        }

        return $at === [] ? '' : 'period ' . $to->period() . ' clashes with ' . Words::join($at);
    }

    private static function warnOfSize(PlanBuilder $plan, ?Section $to, int $seated, int $in): void
    {
        if ($to?->seats() !== null && $seated + $in > $to->seats()) {
            $plan->warn(
                "{$to->name()} would have " .
                    Words::count($seated + $in, 'student') .
                    ' for ' .
                    Words::count($to->seats(), 'seat') .
                    '.',
            );
        }
    }

    private static function title(MoveKind $kind, string $from, string $to): string
    {
        return match ($kind) {
            MoveKind::Move => "From $from to $to",
            MoveKind::Also, MoveKind::Instead => "Into $to",
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
            MoveKind::Instead => "$who come$s into $to on $day, and out of the others of its kind.",
            MoveKind::Remove => "$who leave$s $from on $day. Accounts and cards stay.",
        };
    }
}
