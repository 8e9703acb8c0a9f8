<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SectionState;

/**
 * How far somebody reaches into a school. Coordinators reach everything of theirs; its own staff and staff invited into
 * a section, be it from another school of the district or from outside, as far as their role in a section.
 */
final class Reach
{
    /** @param  StaffRole|null  $role what they are in the section today */
    public static function intoSection(bool $coordinates, ?StaffRole $role, SectionState $state, Power $power): bool
    {
        return $coordinates ||
            ($role !== null && $role->may($power) && ($state === SectionState::Open || $power->outlivesArchive()));
    }

    /** Whether the list of sections is shown to them at all; on it stand those they teach. */
    public static function listsSections(bool $coordinates, ?string $ownSchool, string $school, bool $teaches): bool
    {
        return $coordinates || $ownSchool === $school || $teaches;
    }

    /** @return list<StaffRole> with any of these in an open section, colleagues and their addresses are found */
    public static function findsColleagues(): array
    {
        return array_values(array_filter(StaffRole::cases(), fn(StaffRole $r): bool => $r->may(Power::InviteStaff)));
    }

    /**
     * Whether somebody can be given a part in a section of the school: who works at it, or teaches the section already.
     *
     * @param  list<string>  $teaching ids of who teaches the section now
     */
    public static function isStaffOf(Person $person, string $school, array $teaching): bool
    {
        return $person->kind() === PersonKind::Staff &&
            $person->state() === PersonState::Active &&
            ($person->schoolId() === $school || in_array($person->id, $teaching, true));
    }
}
