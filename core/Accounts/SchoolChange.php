<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;

/**
 * A student goes from one school to another, whichever way that came about: the account and its cards go on working,
 * sections of the school they leave end today.
 */
final class SchoolChange
{
    /**
     * @param  Snapshot  $snapshot with the open enrollments of the student and the sections these are in
     * @param  array<string, string|null>  $fields what is other at the new school besides: number, grade
     * @param  string  $today YYYY-MM-DD
     * @return list<string> names of the sections that end
     */
    public static function write(
        PlanBuilder $plan,
        Snapshot $snapshot,
        Person $student,
        string $toId,
        array $fields,
        string $today,
    ): array {
        $reason = self::reason($snapshot, $toId);
        $plan->update($student, ['school_id' => $toId, 'state' => PersonState::Active->value, ...$fields], $reason);

        return self::endSections(
            $plan,
            $snapshot,
            $snapshot->where(Enrollment::class, 'person_id', $student->id),
            [$student->schoolId()],
            $today,
            $reason,
        );
    }

    /**
     * Ends what a student is in at some schools.
     *
     * @param  list<Enrollment>  $enrollments of the student
     * @param  list<string>  $schoolIds
     * @return list<string> names of the sections
     */
    public static function endSections(
        PlanBuilder $plan,
        Snapshot $snapshot,
        array $enrollments,
        array $schoolIds,
        string $today,
        string $reason,
    ): array {
        $ended = [];
        foreach ($enrollments as $enrollment) {
            $section = $snapshot->find(Section::class, $enrollment->sectionId());
            if (
                $section !== null &&
                in_array($section->schoolId(), $schoolIds, true) &&
                $enrollment->endsOn() === null
            ) {
                // One that has not begun by then never counts: it ends as it begins.
                $plan->update($enrollment, ['ends_on' => max($today, $enrollment->beginsOn())], $reason);
                $ended[] = $section->name();
            }
        }

        return $ended;
    }

    /**
     * Guardians go along with their children: those of a school that none of their children is at any more.
     *
     * @param  array<string, Person>  $students who change school, by id
     * @param  Snapshot  $snapshot with all guardianships of their guardians, and the students these are about
     * @return int how many go along
     */
    public static function guardians(PlanBuilder $plan, Snapshot $snapshot, array $students, string $toId): int
    {
        $left = [];
        foreach ($snapshot->all(Guardianship::class) as $link) {
            $guardian = $snapshot->find(Person::class, $link->guardianId());
            $child = $snapshot->find(Person::class, $link->studentId());
            if ($guardian?->kind() !== PersonKind::Guardian || $link->state() === GuardianshipState::Ended) {
                continue;
            }
            if (isset($students[$link->studentId()])) {
                $left[$guardian->id] = ($left[$guardian->id] ?? true) && $child?->schoolId() === $guardian->schoolId();
            } elseif ($child?->schoolId() === $guardian->schoolId()) {
                $left[$guardian->id] = false;
            }
        }
        $go = array_keys(array_filter($left));
        foreach ($go as $id) {
            $guardian = $snapshot->find(Person::class, (string) $id);
            if ($guardian !== null && $guardian->schoolId() !== $toId) {
                $plan->update($guardian, ['school_id' => $toId], 'goes along with a child');
            }
        }

        return count($go);
    }

    private static function reason(Snapshot $snapshot, string $toId): string
    {
        return 'transfer to ' . ($snapshot->schools[$toId] ?? '');
    }
}
