<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\KnownApart;
use Vantrel\Core\Records\Person;

/** Notes that two accounts are two people: they are not asked about again while what is known of them stays. */
final class ToldApart
{
    /** @param  KnownApart|null  $before what was noted of the two when the facts were others */
    public static function plan(Person $a, Person $b, ?KnownApart $before, Ids $ids): Plan
    {
        [$left, $right] = $a->id < $b->id ? [$a, $b] : [$b, $a];
        $plan = new PlanBuilder();
        $facts = self::facts(self::subject($left), self::subject($right));
        $before === null
            ? $plan->insert(
                Entity::KnownApart,
                $ids->for('apart', $left->id, $right->id),
                ['left_id' => $left->id, 'right_id' => $right->id, 'facts' => $facts],
                'told apart',
            )
            : $plan->update($before, ['facts' => $facts], 'told apart again');
        $name = fn(Person $p): string => $p->fullName();

        return $plan->build(
            "{$name($a)} and {$name($b)} told apart",
            "{$name($a)} and {$name($b)} are two people and are not asked about again, unless a name, a birth date, " .
                'a number or an address of theirs changes.',
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
        );
    }
}
