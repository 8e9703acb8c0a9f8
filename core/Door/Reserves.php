<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;

/**
 * Reserve accounts: blank ones made ahead in a section, with cards, for students who turn up; each is later claimed by
 * a name.
 */
final class Reserves
{
    public const MOST = 20;

    /** What stands for the family name until there is one. */
    public const WORD = 'Reserve';

    /** @param  list<Person>  $reserves the section has now */
    public static function make(
        Section $section,
        int $count,
        array $reserves,
        UserNames $userNames,
        Ids $ids,
        string $today,
    ): Plan {
        Enrolling::mustBeOpen($section);
        if ($count < 1 || $count > self::MOST) {
            throw new Refusal('Make from 1 to ' . self::MOST . ' at a time.', 'count');
        }
        $taken = array_map(fn(Person $r): string => $r->familyName(), $reserves);
        $plan = new PlanBuilder();
        for ($made = 0, $n = 1; $made < $count; $n++) {
            if (in_array((string) $n, $taken, true)) {
                continue;
            }
            $made++;
            $id = $ids->for('person', (string) $n);
            $plan->insert(
                Entity::Person,
                $id,
                [
                    'school_id' => $section->schoolId(),
                    'kind' => 'student',
                    'given_name' => self::WORD,
                    'family_name' => (string) $n,
                    'search_name' => strtolower(self::WORD) . " $n",
                    'birth_date' => null,
                    'number' => null,
                    'grade' => $section->grade(),
                    'email' => null,
                    'phone' => null,
                    'state' => 'reserve',
                    'merged_into' => null,
                ],
                'made ahead',
            );
            $plan->insert(
                Entity::SignIn,
                $ids->for('sign-in', (string) $n),
                [
                    'person_id' => $id,
                    'user_name' => $userNames->give(self::WORD, $section->name()),
                    'passphrase' => null,
                    'password' => null,
                ],
                'made ahead',
            );
            Enrolling::insert($plan, $ids, new NewEnrollment($section->id, $id, 'student', 'reserve', $today));
        }

        return $plan->build(
            "Reserve accounts in {$section->name()}",
            Words::count($count, 'blank account') .
                ' wait' .
                ($count === 1 ? 's' : '') .
                " in {$section->name()} for students who turn up. Print their cards now; name them later.",
        );
    }

    /** Gives a reserve account its owner. User name and card stay. */
    public static function claim(Person $person, PersonName $name, ?string $birthDate, ?string $number): Plan
    {
        if ($person->state() !== PersonState::Reserve) {
            throw new Refusal('This is not a reserve account any more: it belongs to ' . $person->fullName() . '.');
        }
        if ($name->given === '') {
            throw new Refusal('Type the first name of the student.', 'given_name');
        }
        $plan = new PlanBuilder();
        $plan->update(
            $person,
            [
                'given_name' => $name->given,
                'family_name' => $name->family,
                'search_name' => $name->searchKey(),
                'birth_date' => $birthDate,
                'number' => $number,
                'state' => 'active',
            ],
            'reserve account claimed',
        );

        return $plan->build(
            "Reserve account of {$name->full()}",
            "The reserve account becomes {$name->full()}’s. Its user name and card go on working.",
        );
    }
}
