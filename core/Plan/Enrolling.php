<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/** Getting single people into and out of sections. */
final class Enrolling
{
    /**
     * @param  string|null  $endsOn first day they are not in any more, where that is known
     * @param  string|null  $codeId of the join code they came by
     * @param  string|null  $cameAt UTC instant, where they came by themselves
     */
    public static function insert(
        PlanBuilder $plan,
        string $sectionId,
        string $personId,
        string $role,
        string $source,
        Ids $ids,
        string $beginsOn,
        ?string $endsOn = null,
        ?string $codeId = null,
        ?string $cameAt = null,
    ): void {
        $plan->insert(
            Entity::Enrollment,
            $ids->for('enrollment', $sectionId, $personId),
            [
                'section_id' => $sectionId,
                'person_id' => $personId,
                'role' => $role,
                'begins_on' => $beginsOn,
                'ends_on' => $endsOn,
                'source' => $source,
                'join_code_id' => $codeId,
                'came_at' => $cameAt,
            ],
            $source,
        );
    }

    /**
     * A student comes in at the door, from today: by a code, or by a request it was asked with.
     *
     * @param  string|null  $codeId of the code they had
     */
    public static function atTheDoor(
        PlanBuilder $plan,
        string $sectionId,
        string $personId,
        string $source,
        ?string $codeId,
        Occasion $at,
    ): void {
        self::insert($plan, $sectionId, $personId, 'student', $source, $at->ids, $at->today, null, $codeId, $at->now);
    }

    /**
     * Whether someone is in a section on a day, or is going to be.
     *
     * @param  list<Enrollment>  $enrollments the person's own
     */
    public static function isIn(string $sectionId, array $enrollments, string $day): bool
    {
        foreach ($enrollments as $enrollment) {
            if ($enrollment->sectionId() === $sectionId && $enrollment->lastsBeyond($day)) {
                return true;
            }
        }

        return false;
    }

    public static function mustBeOpen(Section $section): void
    {
        if ($section->state() !== SectionState::Open) {
            throw new Refusal('{{section}} is archived and cannot be changed.', null, ['section' => $section->name()]);
        }
    }
}
