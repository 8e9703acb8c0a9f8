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
    public static function insert(PlanBuilder $plan, Ids $ids, NewEnrollment $new): void
    {
        $plan->insert(
            Entity::Enrollment,
            $ids->for('enrollment', $new->sectionId, $new->personId),
            [
                'section_id' => $new->sectionId,
                'person_id' => $new->personId,
                'role' => $new->role,
                'begins_on' => $new->beginsOn,
                'ends_on' => $new->endsOn,
                'source' => $new->source,
                'join_code_id' => $new->codeId,
                'came_at' => $new->cameAt,
            ],
            $new->source,
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
        self::insert(
            $plan,
            $at->ids,
            new NewEnrollment($sectionId, $personId, 'student', $source, $at->today, null, $codeId, $at->now),
        );
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
