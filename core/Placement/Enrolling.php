<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/** Getting single people into and out of sections. */
final class Enrolling
{
    /**
     * A student with an account comes in by a code. Empty where they are in already.
     *
     * @param  list<Enrollment>  $enrollments the student's own
     * @param  int  $cameIn how many are in the section by this code
     * @param  string  $now UTC instant
     *
     * @throws Refusal in words for the student
     */
    public static function byCode(Section $section, JoinCode $code, Person $person, array $enrollments, int $cameIn, Ids $ids, string $today, string $now): Plan
    {
        self::mustBeOpen($section);
        if ($person->kind() !== PersonKind::Student || $person->state() !== PersonState::Active) {
            throw new Refusal('A join code is for students. Staff come in by invitation.');
        }
        $plan = new PlanBuilder;
        if (self::isIn($section->id, $enrollments, $today)) {
            return $plan->build("{$section->name()}", "{$person->givenName()} is in {$section->name()} already.");
        }
        JoinCodes::mustAdmit($code, $cameIn, $now);
        self::insert($plan, $section->id, $person->id, 'student', 'code', $ids, $today, null, $code->id, $now);

        return $plan->build("Into {$section->name()} by code", self::name($person)." comes into {$section->name()} by its code.");
    }

    /**
     * @param  string|null  $endsOn first day they are not in any more, where that is known
     * @param  string|null  $codeId of the join code they came by
     * @param  string|null  $cameAt UTC instant, where they came by themselves
     */
    public static function insert(PlanBuilder $plan, string $sectionId, string $personId, string $role, string $source, Ids $ids, string $beginsOn, ?string $endsOn = null, ?string $codeId = null, ?string $cameAt = null): void
    {
        $plan->insert(Entity::Enrollment, $ids->for('enrollment', $sectionId, $personId), [
            'section_id' => $sectionId, 'person_id' => $personId, 'role' => $role, 'begins_on' => $beginsOn, 'ends_on' => $endsOn, 'source' => $source,
            'join_code_id' => $codeId, 'came_at' => $cameAt,
        ], $source);
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

    public static function name(Person $person): string
    {
        return trim($person->givenName().' '.$person->familyName());
    }
}
