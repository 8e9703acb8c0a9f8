<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\KnownApart;
use Vantrel\Core\Records\Person;

/** Notes that accounts are of different people: they are not asked about again while what is known of them stays. */
final class ToldApart
{
    private const COUNT = [2 => 'two', 3 => 'three', 4 => 'four', 5 => 'five'];

    /**
     * @param  list<Person>  $people two or more
     * @param  string|null  $who of them is somebody else than the others; null where each is somebody
     * @param  list<KnownApart>  $before what was noted of any two of them when the facts were others
     */
    public static function plan(array $people, ?string $who, array $before, Ids $ids): Plan
    {
        usort($people, fn(Person $a, Person $b): int => $a->id <=> $b->id);
        $known = [];
        foreach ($before as $apart) {
            $known["{$apart->leftId()} {$apart->rightId()}"] = $apart;
        }
        $plan = new PlanBuilder();
        foreach ($people as $i => $left) {
            foreach (array_slice($people, $i + 1) as $right) {
                if ($who !== null && !in_array($who, [$left->id, $right->id], true)) {
                    continue;
                }
                $facts = self::facts(self::subject($left), self::subject($right));
                $noted = $known["$left->id $right->id"] ?? null;
                $noted === null
                    ? $plan->insert(
                        Entity::KnownApart,
                        $ids->for('apart', $left->id, $right->id),
                        ['left_id' => $left->id, 'right_id' => $right->id, 'facts' => $facts],
                        'told apart',
                    )
                    : $plan->update($noted, ['facts' => $facts], 'told apart again');
            }
        }
        $names = array_map(fn(Person $p): string => $p->fullName(), $people);
        $all = Words::join($names);
        $one = $who === null ? '' : array_combine(array_map(fn(Person $p): string => $p->id, $people), $names)[$who];
        $until = 'not asked about again, unless a name, a birth date, a number or an address of theirs changes.';

        return count($people) === 2 || $who === null
            ? $plan->build("$all told apart", "$all are " . self::COUNT[count($people)] . " people and are $until")
            : $plan->build(
                "$one told apart from the others",
                "Of $all, $one is somebody else than the others. They are $until",
            );
    }

    /**
     * A sum over what a person who tells two apart goes by: names, birth dates, numbers, own addresses. Grades, schools
     * and contacts come and go with the year and are not among it.
     *
     * @param  Subject  $left of the smaller id
     */
    public static function facts(Subject $left, Subject $right): string
    {
        return hash(
            'sha256',
            json_encode(
                array_map(
                    fn(Subject $s): array => [$s->givenKey, $s->familyKey, $s->birthDate, $s->number, $s->email],
                    [$left, $right],
                ),
                JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE,
            ),
        );
    }

    private static function subject(Person $p): Subject
    {
        return new Subject(
            $p->id,
            $p->givenName(),
            $p->familyName(),
            (string) $p->birthDate(),
            (string) $p->number(),
            (string) $p->email(),
            claimed: $p->email() !== null && $p->emailState() !== AddressState::Confirmed,
        );
    }
}
