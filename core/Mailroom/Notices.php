<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use DateTimeImmutable;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Records\WorkState;

/** Notices, dates and work that is due, of a section or a whole school. */
final class Notices
{
    /** Years before and after today in which a day is meant as it stands: `26` in a field for a year is the year 26. */
    private const YEARS = 2;

    /**
     * @param  string|null  $sectionId null for the whole school
     *
     * @throws Refusal
     */
    public static function publish(
        NoticeWish $wish,
        string $schoolId,
        ?string $sectionId,
        ?string $by,
        Occasion $at,
    ): Plan {
        if ($wish->kind === NoticeKind::Work && $sectionId === null) {
            throw new Refusal('Work is given in a section.', 'kind');
        }
        self::mustBeNear($wish, $at->today);
        $plan = new PlanBuilder();
        $plan->insert(
            Entity::Notice,
            $at->ids->for('notice'),
            [
                'school_id' => $schoolId,
                'section_id' => $sectionId,
                ...$wish->columns(),
                'state' => 'live',
                'gone_through_at' => null,
                'made_by' => $by,
                'made_at' => $at->now,
                'source_key' => null,
            ],
            'written',
        );

        return $plan->build("Notice: {$wish->text->title}", "“{$wish->text->title}” is there to be read.");
    }

    /**
     * @param  int  $seen version of it that was looked at
     *
     * @throws Refusal
     * @throws StalePlan where somebody else has changed it since
     */
    public static function change(Notice $notice, NoticeWish $wish, int $seen, Occasion $at): Plan
    {
        self::mustStand($notice);
        if ($notice->version !== $seen) {
            throw new StalePlan(
                [$notice->title()],
                'Somebody has changed it since you opened it. Nothing was saved: copy what you wrote, and open it again.',
            );
        }
        self::mustBeNear($wish, $at->today);
        if (($notice->kind() === NoticeKind::Work) !== ($wish->kind === NoticeKind::Work)) {
            throw new Refusal('Work stays work, and what is none does not become it. Write it anew.', 'kind');
        }
        $plan = new PlanBuilder();
        $plan->update($notice, $wish->columns(), 'changed');

        return $plan->build("Notice changed: {$wish->text->title}", "“{$wish->text->title}” is changed.");
    }

    /** @throws Refusal */
    public static function withdraw(Notice $notice): Plan
    {
        self::mustStand($notice);
        $plan = new PlanBuilder();
        $plan->update($notice, ['state' => 'withdrawn'], 'withdrawn');

        return $plan->build("Notice withdrawn: {$notice->title()}", "“{$notice->title()}” is not read any more.");
    }

    /**
     * Who has handed work in: of every student of the section, so that nobody passes for missing whom nobody has looked
     * at.
     *
     * @param  array<string, WorkState>  $states by student
     * @param  list<WorkResult>  $kept of this work
     *
     * @throws Refusal
     */
    public static function goThrough(Notice $work, array $states, array $kept, Occasion $at): Plan
    {
        self::mustStand($work);
        if ($work->kind() !== NoticeKind::Work) {
            throw new Refusal('Only work is handed in.');
        }
        $plan = new PlanBuilder();
        $by = [];
        foreach ($kept as $result) {
            $by[$result->personId()] = $result;
        }
        foreach ($states as $person => $state) {
            $result = $by[$person] ?? null;
            if ($result === null) {
                $plan->insert(
                    Entity::WorkResult,
                    $at->ids->for('result', $work->id, $person),
                    ['notice_id' => $work->id, 'person_id' => $person, 'state' => $state->value],
                    $state->value,
                );
            } elseif ($result->state() !== $state) {
                $plan->update($result, ['state' => $state->value], $state->value);
            }
        }
        $plan->update($work, ['gone_through_at' => $at->now], 'gone through');
        $missing = count(array_filter($states, fn(WorkState $s): bool => $s === WorkState::Missing));

        return $plan->build(
            "Handed in: {$work->title()}",
            $missing === 0
                ? "“{$work->title()}” is missing from nobody."
                : "“{$work->title()}” is missing from " . Words::count($missing, 'student') . '.',
        );
    }

    /** @throws Refusal where the year is not one that is meant */
    private static function mustBeNear(NoticeWish $wish, string $today): void
    {
        $from = fn(int $years): string => (new DateTimeImmutable($today))->modify("$years years")->format('Y-m-d');
        if ($wish->day !== null && ($wish->day < $from(-self::YEARS) || $wish->day > $from(self::YEARS))) {
            throw new Refusal('That day is years away. Look at the year.', 'day');
        }
    }

    /** @throws Refusal */
    private static function mustStand(Notice $notice): void
    {
        if (!$notice->isLive()) {
            throw new Refusal('It has been withdrawn.');
        }
    }
}
