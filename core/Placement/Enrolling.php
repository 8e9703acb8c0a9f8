<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Getting single people into and out of sections. */
final class Enrolling
{
    /**
     * A student with an account comes in by a code. Empty where they are in already.
     *
     * @param  list<Row>  $enrollments the student's own
     * @param  int  $cameIn how many are in the section by this code
     * @param  string  $now UTC instant
     *
     * @throws Refusal in words for the student
     */
    public static function byCode(Row $section, Row $code, Row $person, array $enrollments, int $cameIn, Ids $ids, string $today, string $now): Plan
    {
        self::mustBeOpen($section);
        if ($person->text('kind') !== 'student' || $person->text('state') !== 'active') {
            throw new Refusal('A join code is for students. Staff come in by invitation.');
        }
        $plan = new PlanBuilder;
        if (self::isIn($section->id, $enrollments, $today)) {
            return $plan->build("{$section->text('name')}", "{$person->text('given_name')} is in {$section->text('name')} already.");
        }
        JoinCodes::mustAdmit($code, $cameIn, $now);
        self::insert($plan, $section->id, $person->id, 'student', 'code', $ids, $today, null, $code->id, $now);

        return $plan->build("Into {$section->text('name')} by code", self::name($person)." comes into {$section->text('name')} by its code.");
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
     * @param  list<Row>  $enrollments the person's own
     */
    public static function isIn(string $sectionId, array $enrollments, string $day): bool
    {
        foreach ($enrollments as $enrollment) {
            if ($enrollment->text('section_id') === $sectionId && ($enrollment->maybe('ends_on') === null || $enrollment->text('ends_on') > $day)) {
                return true;
            }
        }

        return false;
    }

    public static function mustBeOpen(Row $section): void
    {
        if ($section->text('state') !== 'open') {
            throw new Refusal('{{section}} is archived and cannot be changed.', null, ['section' => $section->text('name')]);
        }
    }

    public static function name(Row $person): string
    {
        return trim($person->text('given_name').' '.$person->text('family_name'));
    }
}
