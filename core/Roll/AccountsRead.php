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
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\School;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Records\SignIn;

/** Reads off records what the problems of an account are judged by. */
final class AccountsRead
{
    /** @param  string  $today the day at the school, YYYY-MM-DD */
    public static function facts(Snapshot $records, Person $student, string $today): AccountFacts
    {
        $placed = $signedIn = $carded = $lost = false;
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
                $lost = $lost || $badge->state() === BadgeState::Lost;
            }
        }
        $links = [];
        $reached = false;
        foreach ($records->where(Guardianship::class, 'student_id', $student->id) as $link) {
            $links[] = $link->state();
            $guardian = $records->find(Person::class, $link->guardianId());
            $reached =
                $reached ||
                ($link->state() !== GuardianshipState::Ended &&
                    ($guardian?->email() !== null || $guardian?->phone() !== null));
        }

        return new AccountFacts(
            $student->state(),
            $placed,
            $signedIn,
            array_filter($links, fn(GuardianshipState $s): bool => $s !== GuardianshipState::Ended) !== [],
            in_array(GuardianshipState::Connected, $links, true),
            $reached,
            $carded,
            $lost,
            self::isOutside($student->email(), $records->find(School::class, $student->schoolId())),
            self::isTwice($records, $student),
            $student->birthDate(),
            $student->grade(),
            $today,
        );
    }

    private static function isOutside(?string $email, ?School $school): bool
    {
        $domains = (array) json_decode((string) $school?->mailDomains(), true);

        return $email !== null &&
            $domains !== [] &&
            !in_array(substr((string) strrchr($email, '@'), 1), $domains, true);
    }

    private static function isTwice(Snapshot $records, Person $student): bool
    {
        $plain = fn(Person $p): string => ltrim((string) $p->number(), '0');
        foreach (
            $plain($student) === '' ? [] : $records->where(Person::class, 'school_id', $student->schoolId())
            as $p
        ) {
            if (
                $p->id !== $student->id &&
                $p->kind() === PersonKind::Student &&
                $p->state() !== PersonState::Merged &&
                $plain($p) === $plain($student)
            ) {
                return true;
            }
        }

        return false;
    }
}
