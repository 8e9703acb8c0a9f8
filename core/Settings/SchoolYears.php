<?php

declare(strict_types=1);

namespace Vantrel\Core\Settings;

use DateTimeImmutable;
use DateTimeZone;
use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\School;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\YearState;

/** School years by hand: planning the next, changing dates. The year turn makes the next one current. */
final class SchoolYears
{
    /**
     * The year that would follow: a year later to the day, under the name its years give it.
     *
     * @param  string  $endsOn the day after the last
     * @return array{string, string, string} name, first day, day after the last
     */
    public static function following(string $beginsOn, string $endsOn): array
    {
        [$begins, $ends] = array_map(
            fn(string $day): DateTimeImmutable => (new DateTimeImmutable($day, new DateTimeZone('UTC')))->modify(
                '+1 year',
            ),
            [$beginsOn, $endsOn],
        );

        return [
            $begins->format('Y') === $ends->format('Y')
                ? $begins->format('Y')
                : $begins->format('Y') . '-' . $ends->format('y'),
            $begins->format('Y-m-d'),
            $ends->format('Y-m-d'),
        ];
    }

    /**
     * @param  string  $endsOn the day after the last
     * @param  list<SchoolYear>  $years of the school
     *
     * @throws Refusal
     */
    public static function plan(
        string $schoolId,
        string $name,
        string $beginsOn,
        string $endsOn,
        array $years,
        Ids $ids,
    ): Plan {
        self::check($name, $beginsOn, $endsOn, $years, null);
        $plan = new PlanBuilder();
        // The first year of a school is the one it is in.
        $state =
            array_filter($years, fn(SchoolYear $y): bool => $y->state() === YearState::Current) === []
                ? 'current'
                : 'planned';
        $plan->insert(
            Entity::SchoolYear,
            $ids->for('year', $name),
            [
                'school_id' => $schoolId,
                'name' => $name,
                'begins_on' => $beginsOn,
                'ends_on' => $endsOn,
                'state' => $state,
            ],
            $state,
        );

        return $plan->build(
            "School year $name",
            $state === 'planned'
                ? "Plans the school year $name. The year turn makes it current."
                : "$name is the current school year.",
        );
    }

    /** @param  list<SchoolYear>  $years of the school */
    public static function edit(SchoolYear $year, string $name, string $beginsOn, string $endsOn, array $years): Plan
    {
        if ($year->state() === YearState::Closed) {
            throw new Refusal("{$year->name()} is closed: its rosters stay as they were.");
        }
        self::check($name, $beginsOn, $endsOn, $years, $year->id);
        $plan = new PlanBuilder();
        $plan->update($year, ['name' => $name, 'begins_on' => $beginsOn, 'ends_on' => $endsOn], 'changed by hand');

        return $plan->build("School year $name", "Changes the school year $name.");
    }

    /** @param  list<SchoolYear>  $years */
    private static function check(string $name, string $beginsOn, string $endsOn, array $years, ?string $but): void
    {
        if ($name === '') {
            throw new Refusal('Give the year a name, such as 2027-28.', 'name');
        }
        if ($endsOn <= $beginsOn) {
            throw new Refusal('The year ends before it begins.', 'last_on');
        }
        foreach ($years as $year) {
            if ($year->id === $but) {
                continue;
            }
            if ($year->name() === $name) {
                throw new Refusal("There is a year called $name already.", 'name');
            }
            // Half-open: one year may end on the day the next begins.
            if ($beginsOn < $year->endsOn() && $year->beginsOn() < $endsOn) {
                throw new Refusal(
                    "That overlaps {$year->name()}, from " .
                        Words::day($year->beginsOn()) .
                        ' to ' .
                        Words::day(Span::last($year->endsOn())) .
                        '.',
                    'begins_on',
                );
            }
        }
    }
}
