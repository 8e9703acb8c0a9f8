<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Words;

/** Who teaches a section: handing the lead over, changing a role, taking somebody off. */
final class Leads
{
    /**
     * The section gets another lead; who led it becomes a co-teacher. A section without a lead gets one.
     *
     * @param  Row  $person staff who is to lead
     * @param  list<Row>  $enrollments of the section's staff, in force
     *
     * @throws Refusal
     */
    public static function handOver(Row $section, Row $person, array $enrollments, Ids $ids, string $today): Plan
    {
        Enrolling::mustBeOpen($section);
        if ($person->text('kind') !== 'staff' || $person->text('state') !== 'active') {
            throw new Refusal('Only staff who work here can lead a section.', 'person');
        }
        foreach ($enrollments as $enrollment) {
            if ($enrollment->text('person_id') === $person->id && $enrollment->text('role') === StaffRole::Substitute->value) {
                throw new Refusal(Enrolling::name($person).' is here as a substitute until '.Words::day((string) $enrollment->maybe('ends_on')).'. Take them off the section first, or invite them as a co-teacher; then hand the lead over.', 'person');
            }
        }
        $plan = new PlanBuilder;
        foreach ($enrollments as $enrollment) {
            $theirs = $enrollment->text('person_id') === $person->id;
            if ($theirs && $enrollment->text('role') === 'lead') {
                throw new Refusal(Enrolling::name($person).' leads this section already.', 'person');
            }
            if ($theirs || $enrollment->text('role') === 'lead') {
                $plan->update(Entity::Enrollment, $enrollment, ['ends_on' => max($today, $enrollment->text('begins_on'))], 'lead handed over');
            }
            if (! $theirs && $enrollment->text('role') === 'lead') {
                Enrolling::insert($plan, $section->id, $enrollment->text('person_id'), StaffRole::CoTeacher->value, 'hand', $ids, $today);
            }
        }
        Enrolling::insert($plan, $section->id, $person->id, StaffRole::Lead->value, 'hand', $ids, $today);

        return $plan->build("Lead of {$section->text('name')}", Enrolling::name($person)." leads {$section->text('name')} from today. Who led it stays as a co-teacher.");
    }

    /** Takes a co-teacher, assistant or substitute off a section as of today. */
    public static function takeOff(Row $section, Row $person, Row $enrollment, string $today): Plan
    {
        Enrolling::mustBeOpen($section);
        if ($enrollment->text('role') === 'lead') {
            throw new Refusal(Enrolling::name($person).' leads this section. Hand the lead over first.');
        }
        $plan = new PlanBuilder;
        $plan->update(Entity::Enrollment, $enrollment, ['ends_on' => max($today, $enrollment->text('begins_on'))], 'taken off');

        return $plan->build("Off {$section->text('name')}", Enrolling::name($person)." does not teach {$section->text('name')} any more. The account stays.");
    }
}
