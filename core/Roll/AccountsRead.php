<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\BadgeState;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Records\SignIn;

/** Reads off records what the problems of an account are judged by. */
final class AccountsRead
{
    /** @param  string  $today the day at the school, YYYY-MM-DD */
    public static function facts(Snapshot $records, Person $student, string $today): AccountFacts
    {
        $placed = $signedIn = $guarded = $carded = false;
        foreach ($records->where(Enrollment::class, 'person_id', $student->id) as $enrollment) {
            $section = $records->find(Section::class, $enrollment->sectionId());
            $placed =
                $placed ||
                ($section?->state() === SectionState::Open &&
                    (new Span($enrollment->beginsOn(), $enrollment->endsOn()))->holds($today));
        }
        foreach ($records->where(SignIn::class, 'person_id', $student->id) as $signIn) {
            $signedIn = $signedIn || $signIn->lastSignedInAt() !== null;
            foreach ($records->where(Badge::class, 'sign_in_id', $signIn->id) as $badge) {
                $carded = $carded || $badge->state() === BadgeState::Live;
            }
        }
        foreach ($records->where(Guardianship::class, 'student_id', $student->id) as $link) {
            $guarded = $guarded || $link->state() !== GuardianshipState::Ended;
        }

        return new AccountFacts($placed, $signedIn, $guarded, $carded);
    }
}
