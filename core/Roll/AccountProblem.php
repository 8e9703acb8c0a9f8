<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\CalendarDate;
use Vantrel\Core\Values\GradeLevel;

/** What may be amiss with the account of a student. */
enum AccountProblem: string
{
    case Unplaced = 'unplaced';
    case NeverSignedIn = 'never_signed_in';
    case NoGuardian = 'no_guardian';
    case NotConnected = 'not_connected';
    /** The law asks for a parent's word (16 CFR Part 312, for children under 13, USA), and there is nobody to ask. */
    case YoungUnreached = 'under_13_unreached';
    case NoCard = 'no_card';
    case CardLost = 'card_lost';
    case OutsideDomain = 'outside_domain';
    case NoBirthDate = 'no_birth_date';
    case NumberTwice = 'number_twice';
    case GradeUnlikeAge = 'grade_unlike_age';
    case LeftEnrolled = 'left_enrolled';

    /**
     * A grade's children are as old as its number and five or six years more (common practice, no source). Whoever is
     * three years younger or two older than that is likelier to have a wrong birth date or grade than to be so.
     */
    private const YEARS_OVER_GRADE = [3, 8];

    /** From this age on a child speaks for itself on line: 16 CFR 312.2, "child". */
    private const OF_AGE = 13;

    /** In which state an account can have it. */
    public function state(): PersonState
    {
        return $this === self::LeftEnrolled ? PersonState::Left : PersonState::Active;
    }

    public function isOf(AccountFacts $account): bool
    {
        return $account->state === $this->state() &&
            match ($this) {
                self::Unplaced => !$account->placed,
                self::NeverSignedIn => !$account->signedIn,
                self::NoGuardian => !$account->guarded,
                self::NotConnected => !$account->connected,
                self::YoungUnreached => $account->born !== null &&
                    !$account->reached &&
                    CalendarDate::age($account->born, $account->today) < self::OF_AGE,
                self::NoCard => !$account->carded,
                self::CardLost => $account->lost && !$account->carded,
                self::OutsideDomain => $account->outside,
                self::NoBirthDate => $account->born === null,
                self::NumberTwice => $account->numberTwice,
                self::GradeUnlikeAge => self::isUnlike($account),
                self::LeftEnrolled => $account->placed,
            };
    }

    /**
     * Whoever is in a grade and was born on or before the first of these days, or after the second, is too old or too
     * young for it.
     *
     * @param  string  $today YYYY-MM-DD
     * @return array{string, string}
     */
    public static function bornUnlike(GradeLevel $grade, string $today): array
    {
        // 29 February has no counterpart in most years; nobody is young or old by that day.
        $day = str_ends_with($today, '02-29') ? '02-28' : substr($today, 5);
        $ago = fn(int $years): string => sprintf('%04d-%s', (int) substr($today, 0, 4) - $grade->order - $years, $day);

        return [$ago(self::YEARS_OVER_GRADE[1]), $ago(self::YEARS_OVER_GRADE[0])];
    }

    private static function isUnlike(AccountFacts $account): bool
    {
        $grade = GradeLevel::read((string) $account->grade);
        if ($grade === null || $account->born === null) {
            return false;
        }
        [$old, $young] = self::bornUnlike($grade, $account->today);

        return $account->born <= $old || $account->born > $young;
    }
}
