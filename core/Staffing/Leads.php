<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

/** Who teaches a section: handing the lead over, changing a role, taking somebody off. */
final class Leads
{
    /**
     * The section gets another lead; who led it becomes a co-teacher. A section without a lead gets one.
     *
     * @param  Person|null  $person staff who is to lead; null where there is no such person
     * @param  list<Enrollment>  $enrollments of the section's staff, in force
     *
     * @throws Refusal
     */
    public static function handOver(
        Section $section,
        ?Person $person,
        array $enrollments,
        Ids $ids,
        string $today,
    ): Plan {
        Enrolling::mustBeOpen($section);
        $teaching = array_map(fn(Enrollment $e): string => $e->personId(), $enrollments);
        if ($person === null || !Reach::isStaffOf($person, $section->schoolId(), $teaching)) {
            throw new Refusal('Choose somebody on the staff of this school.', 'person');
        }
        foreach ($enrollments as $enrollment) {
            if ($enrollment->personId() === $person->id && $enrollment->role() === EnrollmentRole::Substitute) {
                throw new Refusal(
                    $person->fullName() .
                        ' is here as a substitute until ' .
                        Words::day((string) $enrollment->endsOn()) .
                        '. Take them off the section first, or invite them as a co-teacher; then hand the lead over.',
                    'person',
                );
            }
        }
        $plan = new PlanBuilder();
        foreach ($enrollments as $enrollment) {
            $theirs = $enrollment->personId() === $person->id;
            if ($theirs && $enrollment->role() === EnrollmentRole::Lead) {
                throw new Refusal($person->fullName() . ' leads this section already.', 'person');
            }
            if ($theirs || $enrollment->role() === EnrollmentRole::Lead) {
                $plan->update($enrollment, ['ends_on' => max($today, $enrollment->beginsOn())], 'lead handed over');
            }
            if (!$theirs && $enrollment->role() === EnrollmentRole::Lead) {
                Enrolling::insert(
                    $plan,
                    $ids,
                    new NewEnrollment(
                        $section->id,
                        $enrollment->personId(),
                        StaffRole::CoTeacher->value,
                        'hand',
                        $today,
                    ),
                );
            }
        }
        Enrolling::insert(
            $plan,
            $ids,
            new NewEnrollment($section->id, $person->id, StaffRole::Lead->value, 'hand', $today),
        );

        return $plan->build(
            "Lead of {$section->name()}",
            $person->fullName() . " leads {$section->name()} from today. Who led it stays as a co-teacher.",
        );
    }

    /** Takes a co-teacher, assistant or substitute off a section as of today. */
    public static function takeOff(Section $section, Person $person, Enrollment $enrollment, string $today): Plan
    {
        Enrolling::mustBeOpen($section);
        if ($enrollment->role() === EnrollmentRole::Lead) {
            throw new Refusal($person->fullName() . ' leads this section. Hand the lead over first.');
        }
        $plan = new PlanBuilder();
        $plan->update($enrollment, ['ends_on' => max($today, $enrollment->beginsOn())], 'taken off');

        return $plan->build(
            "Off {$section->name()}",
            $person->fullName() . " does not teach {$section->name()} any more. The account stays.",
        );
    }
}
