<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Snapshots;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\Move;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;

/** What coming into a section, and going out of one, comes to: reads what the plan of it is made from. */
final class Placements
{
    public function __construct(private readonly Snapshots $snapshots, private readonly PlannerKit $kit) {}

    /** @param  list<Records\Person>  $people in any order; they are shown by name */
    public function move(MoveKind $kind, array $people, ?Records\Section $from, ?Records\Section $to, string $day): Move
    {
        usort(
            $people,
            fn(Records\Person $a, Records\Person $b): int => [$a->familyName(), $a->givenName(), $a->id] <=> [
                $b->familyName(),
                $b->givenName(),
                $b->id,
            ],
        );

        return new Move($kind, $people, $from, $to, $day);
    }

    public function plan(Move $move, string $seed): Plan
    {
        $to = $move->into;
        $enrollments = $sections = [];
        $in = $to === null ? [] : [$to->id => true];
        foreach (
            $this->snapshots->list(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->whereIn('person_id', array_map(fn(Records\Person $p): string => $p->id, $move->people))
                    ->where('role', 'student'),
            )
            as $enrollment
        ) {
            $enrollments[$enrollment->personId()][] = $enrollment;
            $in[$enrollment->sectionId()] = true;
        }
        foreach (
            $this->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->whereIn('id', array_map(strval(...), array_keys($in))),
            )
            as $section
        ) {
            $sections[$section->id] = $section;
        }
        $seated =
            $to === null
                ? 0
                : DB::table('enrollments as e')
                    ->where('e.section_id', $to->id)
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', $move->day))
                    ->count();

        return Moves::plan($move, $enrollments, $sections, $seated, $this->kit->ids($seed));
    }
}
