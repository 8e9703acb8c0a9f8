<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\LiveState;
use Vantrel\Core\Records\PassHours;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\School;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;

/**
 * The room pass: one printed code that opens a section's name list on shared devices. A section has at most one that
 * works.
 */
final class RoomPasses
{
    /**
     * Makes a pass; one the section has stops working at once.
     *
     * @param  list<RoomPass>  $passes of the section
     * @param  bool  $schoolHours whether it works in school hours only
     * @param  bool  $pictures whether a student taps three pictures of their own besides the name
     * @param  string|null  $endsAt UTC instant, null for until it is ended
     */
    public static function make(
        Section $section,
        array $passes,
        Token $token,
        bool $schoolHours,
        bool $pictures,
        ?string $endsAt,
        Ids $ids,
        string $now,
    ): Plan {
        Enrolling::mustBeOpen($section);
        if ($endsAt !== null && $endsAt <= $now) {
            throw new Refusal('That end has passed already. Choose a later one.', 'until');
        }
        $plan = new PlanBuilder();
        $had = self::endAll($plan, $passes, $now, 'replaced');
        $plan->insert(
            Entity::RoomPass,
            $ids->for('room-pass'),
            [
                'section_id' => $section->id,
                'token_hash' => $token->hash(),
                'state' => 'live',
                'hours' => $schoolHours ? 'school' : 'any',
                'pictures' => $pictures ? 1 : 0,
                'made_at' => $now,
                'ends_at' => $endsAt,
                'ended_at' => null,
            ],
            'room pass made',
        );

        return $plan->build(
            "Room pass of {$section->name()}",
            $had
                ? "The printed pass of {$section->name()} stops working and a new one opens its name list."
                : "A printed pass opens the name list of {$section->name()} on shared devices.",
        );
    }

    /** @param  list<RoomPass>  $passes */
    public static function end(Section $section, array $passes, string $now): Plan
    {
        $plan = new PlanBuilder();
        if (!self::endAll($plan, $passes, $now, 'ended')) {
            throw new Refusal("{$section->name()} has no room pass.");
        }

        return $plan->build(
            "Room pass of {$section->name()} ended",
            "The printed pass of {$section->name()} stops working at once; whoever came in by it is signed out.",
        );
    }

    /**
     * Why a pass does not open the list now, in words for whoever holds the device; null where it does.
     *
     * @param  string  $now UTC instant
     * @param  string  $clock HH:MM at the school
     */
    public static function shut(RoomPass $pass, Section $section, School $school, string $now, string $clock): ?Refusal
    {
        return match (true) {
            $pass->state() !== LiveState::Live || $section->state() !== SectionState::Open => new Refusal(
                'This pass does not work any more. There is a newer one in the room, or ask the teacher.',
            ),
            $pass->endsAt() !== null && (string) $pass->endsAt() <= $now => new Refusal(
                'This pass has ended. Ask the teacher for a new one.',
            ),
            $pass->hours() === PassHours::School && ($clock < $school->dayOpens() || $clock >= $school->dayCloses())
                => new Refusal('This pass works from {{from}} to {{to}}. At home, use your own card.', null, [
                'from' => $school->dayOpens(),
                'to' => $school->dayCloses(),
            ]),
            default => null,
        };
    }

    /** @param  list<RoomPass>  $passes */
    public static function endAll(PlanBuilder $plan, array $passes, string $now, string $reason): bool
    {
        $any = false;
        foreach ($passes as $pass) {
            if ($pass->state() === LiveState::Live) {
                $plan->update($pass, ['state' => 'ended', 'ended_at' => $now], $reason);
                $any = true;
            }
        }

        return $any;
    }
}
