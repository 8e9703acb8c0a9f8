<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Door\JoinRequests;
use Vantrel\Core\Door\Newcomers;
use Vantrel\Core\Door\RoomPasses;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\InvitationState;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/** Making single sections, changing and archiving them. */
final class Sections
{
    /**
     * @param  list<Section>  $sections of the same school and year
     *
     * @throws Refusal where a section of that name is there
     */
    public static function make(
        string $schoolId,
        string $yearId,
        SectionWish $wish,
        array $sections,
        CodeBook $book,
        Occasion $at,
    ): Plan {
        self::mustBeFree($wish->name, $sections);
        $plan = new PlanBuilder();
        $id = $at->ids->for('section');
        $plan->insert(
            Entity::Section,
            $id,
            [
                'school_id' => $schoolId,
                'school_year_id' => $yearId,
                ...$wish->columns(),
                'state' => 'open',
                'carried_from' => null,
            ],
            'made by hand',
        );
        JoinCodes::insert($plan, $id, $book, $at->ids, $at->now);

        return $plan->build("Section $wish->name", "Makes the section $wish->name with a code of its own.");
    }

    /**
     * Changes what a section is called and holds. Its code, roster and staff stay.
     *
     * @param  list<Section>  $sections of the same school and year
     *
     * @throws Refusal where another section has the name
     */
    public static function edit(Section $section, SectionWish $wish, array $sections): Plan
    {
        Enrolling::mustBeOpen($section);
        self::mustBeFree($wish->name, array_filter($sections, fn(Section $s): bool => $s->id !== $section->id));
        $plan = new PlanBuilder();
        $plan->update($section, $wish->columns(), 'changed by hand');

        return $plan->build(
            "Section $wish->name",
            $section->name() === $wish->name
                ? "Changes $wish->name. Its roster and code stay."
                : "{$section->name()} is called $wish->name. Its roster and code stay.",
        );
    }

    /** @param  array<Section>  $sections */
    private static function mustBeFree(string $name, array $sections): void
    {
        foreach ($sections as $section) {
            // What is archived keeps its name, and leaves it to others.
            if ($section->state() === SectionState::Open && NameKey::of($section->name()) === NameKey::of($name)) {
                throw new Refusal(
                    "There is a section called {$section->name()} this year. Give this one a name of its own.",
                    'name',
                );
            }
        }
    }

    /**
     * Archives one section: read-only, its code dead, its open invitations withdrawn; roster and user names stay.
     *
     * @param  list<JoinCode>  $codes of the section
     * @param  list<Invitation>  $invitations of the section
     * @param  list<JoinRequest>  $requests of newcomers for the section
     * @param  list<RoomPass>  $passes room passes of the section
     * @param  string  $today the day at the school
     * @param  string  $now UTC instant
     */
    public static function archive(
        Section $section,
        array $codes,
        array $invitations,
        array $requests,
        array $passes,
        string $today,
        string $now,
    ): Plan {
        if ($section->state() !== SectionState::Open) {
            throw new Refusal("{$section->name()} is archived already.");
        }
        $plan = new PlanBuilder();
        self::close($plan, $section, $codes, $invitations, $requests, $passes, $today, $now);

        return $plan->build(
            "{$section->name()} archived",
            "{$section->name()} becomes read-only; its code and room pass stop working. Its roster and " .
                'everyone’s user names stay, and cards can still be printed.',
        );
    }

    /**
     * @param  list<JoinCode>  $codes
     * @param  list<Invitation>  $invitations
     * @param  list<JoinRequest>  $requests
     * @param  list<RoomPass>  $passes
     */
    public static function close(
        PlanBuilder $plan,
        Section $section,
        array $codes,
        array $invitations,
        array $requests,
        array $passes,
        string $today,
        string $now,
    ): void {
        $plan->update($section, ['state' => 'archived', 'archived_on' => $today], 'archived');
        JoinCodes::closeAll($plan, $codes, $now, 'section archived');
        RoomPasses::endAll($plan, $passes, $now, 'section archived');
        JoinRequests::closeAll($plan, $requests, $now);
        foreach ($invitations as $invitation) {
            if ($invitation->state() === InvitationState::Invited) {
                $plan->update($invitation, ['state' => 'withdrawn', 'answered_at' => $now], 'section archived');
            }
        }
    }
}
