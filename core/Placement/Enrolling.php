<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

use Vantrel\Core\Codes\UserNames;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Getting single students into and out of sections. */
final class Enrolling
{
    /**
     * A student with an account comes in by a code. Empty where they are in already.
     *
     * @param  list<Row>  $enrollments the student's own
     */
    public static function byCode(Row $section, Row $person, array $enrollments, Ids $ids, string $today): Plan
    {
        self::mustBeOpen($section);
        if ($person->text('kind') !== 'student' || $person->text('state') !== 'active') {
            throw new Refusal('A join code is for students. Staff come in by invitation.');
        }
        $plan = new PlanBuilder;
        foreach ($enrollments as $enrollment) {
            if ($enrollment->text('section_id') === $section->id && $enrollment->maybe('ends_on') === null) {
                return $plan->build("{$section->text('name')}", "{$person->text('given_name')} is in {$section->text('name')} already.");
            }
        }
        self::insert($plan, $section->id, $person->id, 'student', 'code', $ids, $today);

        return $plan->build("Into {$section->text('name')} by code", self::name($person)." comes into {$section->text('name')} by its code.");
    }

    /**
     * A student without an account makes one and comes in. The sign-in gets the hash of the password they chose.
     *
     * @param  string  $passwordHash as stored; the core never sees the password
     *
     * @throws Refusal where a name is missing
     */
    public static function byNewAccount(Row $section, PersonName $name, string $passwordHash, UserNames $userNames, Ids $ids, string $today): Plan
    {
        self::mustBeOpen($section);
        if ($name->given === '') {
            throw new Refusal('Type your first name.', 'given_name');
        }
        $plan = new PlanBuilder;
        $id = $ids->for('person');
        $plan->insert(Entity::Person, $id, [
            'school_id' => $section->text('school_id'), 'kind' => 'student', 'given_name' => $name->given, 'family_name' => $name->family,
            'search_name' => $name->searchKey(), 'birth_date' => null, 'number' => null, 'grade' => $section->maybe('grade'),
            'email' => null, 'phone' => null, 'state' => 'active', 'merged_into' => null,
        ], 'made by the student with a join code');
        $plan->insert(Entity::SignIn, $ids->for('sign-in'), [
            'person_id' => $id, 'user_name' => $userNames->give($name->given, $name->family), 'passphrase' => null, 'password' => $passwordHash,
        ], 'made by the student with a join code');
        self::insert($plan, $section->id, $id, 'student', 'code', $ids, $today);

        return $plan->build("New account in {$section->text('name')}", "{$name->full()} makes an account and comes into {$section->text('name')}.");
    }

    /** Takes someone out of a section as of a day; the roster of the days before keeps them. */
    public static function remove(Row $section, Row $person, Row $enrollment, string $today): Plan
    {
        self::mustBeOpen($section);
        if ($enrollment->text('role') === 'lead') {
            throw new Refusal(self::name($person).' leads this section. Hand the lead over first.');
        }
        $plan = new PlanBuilder;
        $plan->update(Entity::Enrollment, $enrollment, ['ends_on' => $today], 'taken out');

        return $plan->build("Out of {$section->text('name')}", self::name($person)." leaves {$section->text('name')} today. The account and its cards stay.");
    }

    public static function insert(PlanBuilder $plan, string $sectionId, string $personId, string $role, string $source, Ids $ids, string $today): void
    {
        $plan->insert(Entity::Enrollment, $ids->for('enrollment', $sectionId, $personId), [
            'section_id' => $sectionId, 'person_id' => $personId, 'role' => $role, 'begins_on' => $today, 'ends_on' => null, 'source' => $source,
        ], $source);
    }

    private static function mustBeOpen(Row $section): void
    {
        if ($section->text('state') !== 'open') {
            throw new Refusal("{$section->text('name')} is archived and cannot be changed.");
        }
    }

    private static function name(Row $person): string
    {
        return trim($person->text('given_name').' '.$person->text('family_name'));
    }
}
