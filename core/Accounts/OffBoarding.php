<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\SectionState;

/**
 * Somebody of the staff leaves: every way to sign in ends, roles end, open invitations are withdrawn, and the sections
 * they led are handed over or named. One plan, one entry; undone, everything comes back but the secrets.
 */
final class OffBoarding
{
    /**
     * @param  StaffRecords  $of what belongs to the person
     * @param  Person|null  $to who leads the sections they led, where anybody is named
     * @param  bool  $onlyCoordinator whether a school they coordinate has nobody else who does
     *
     * @throws Refusal
     */
    public static function plan(
        Person $person,
        StaffRecords $of,
        ?Person $to,
        bool $onlyCoordinator,
        Occasion $at,
    ): Plan {
        $name = $person->fullName();
        if ($person->kind() !== PersonKind::Staff) {
            throw new Refusal('This is for staff. Students leave by a list or the year turn.');
        }
        if ($person->state() !== PersonState::Active) {
            throw new Refusal("$name has left already.");
        }
        if (
            $to !== null &&
            ($to->id === $person->id || $to->kind() !== PersonKind::Staff || $to->state() !== PersonState::Active)
        ) {
            throw new Refusal('Hand the sections to somebody else who works here.', 'to');
        }
        $plan = new PlanBuilder();
        $plan->update($person, ['state' => 'left'], 'left the staff');
        $ended = Credentials::closeAll($plan, $of->signIns, $of->badges, $of->identities, $at->now, 'left the staff');
        foreach ($of->coordinators as $coordinator) {
            $plan->update($coordinator, ['state' => 'ended'], 'left the staff');
        }
        foreach ($of->invitations as $invitation) {
            $plan->update($invitation, ['state' => 'withdrawn', 'answered_at' => $at->now], 'left the staff');
        }
        [$handed, $without] = self::sections($plan, $person, $of, $to, $at->ids, $at->today);
        if ($without !== []) {
            $plan->warn(
                Words::count(count($without), 'section is', 'sections are') .
                    ' left without a lead: ' .
                    Words::some($without, 6) .
                    '. Name somebody to hand them to, or hand each over from its page.',
            );
        }
        if ($of->elsewhere !== []) {
            $plan->warn(
                "$name also teaches " .
                    Words::some($of->elsewhere, 4) .
                    '. Tell those schools: their sections are theirs to hand over.',
            );
        }
        if ($onlyCoordinator) {
            $plan->block(
                "$name is the only coordinator of a school. Make somebody else its coordinator first " .
                    '(vantrel:coordinator).',
            );
        }
        $coordinated = count($of->coordinators);
        $parts = array_values(
            array_filter(
                [
                    $ended === [] ? '' : 'ends ' . Words::join($ended),
                    $coordinated === 0
                        ? ''
                        : 'ends ' . Words::count($coordinated, 'role as coordinator', 'roles as coordinator'),
                    $of->invitations === [] ? '' : 'withdraws ' . Words::count(count($of->invitations), 'invitation'),
                    $handed === []
                        ? ''
                        : 'hands ' .
                            Words::count(count($handed), 'section') .
                            ' to ' .
                            ($to === null ? '' : $to->fullName()),
                    $without === [] ? '' : 'leaves ' . Words::count(count($without), 'section') . ' without a lead',
                ],
                fn(string $p): bool => $p !== '',
            ),
        );

        return $plan->build(
            "$name leaves the staff",
            "$name leaves the staff today" .
                ($parts === [] ? '.' : ': ' . Words::join($parts) . '.') .
                ' All open sessions end.',
            array_values(
                array_filter(
                    [
                        new Tally('handed', count($handed), 'sections handed over'),
                        new Tally('without_lead', count($without), 'sections without a lead'),
                    ],
                    fn(Tally $t): bool => $t->count > 0,
                ),
            ),
        );
    }

    /** @return array{list<string>, list<string>} names of sections handed over, and of those left without a lead */
    private static function sections(
        PlanBuilder $plan,
        Person $person,
        StaffRecords $of,
        ?Person $to,
        Ids $ids,
        string $today,
    ): array {
        $handed = $without = [];
        $n = 0;
        foreach ($of->teaching as $enrollment) {
            $section = $of->sections[$enrollment->sectionId()] ?? null;
            if ($section === null || $section->state() !== SectionState::Open) {
                continue;
            }
            $plan->update($enrollment, ['ends_on' => max($today, $enrollment->beginsOn())], 'left the staff');
            $role = $enrollment->role();
            $then = '';
            // Handed to somebody of the school the section is in; others are named.
            if ($role === EnrollmentRole::Lead && $to !== null && $to->schoolId() === $section->schoolId()) {
                foreach ($of->colleagues as $other) {
                    if ($other->sectionId() === $section->id && $other->personId() === $to->id) {
                        $plan->update($other, ['ends_on' => max($today, $other->beginsOn())], 'leads from today');
                    }
                }
                Enrolling::insert(
                    $plan,
                    $ids,
                    new NewEnrollment($section->id, $to->id, EnrollmentRole::Lead->value, 'hand', $today),
                );
                $handed[] = $section->name();
                $then = 'led by ' . $to->fullName();
            } elseif ($role === EnrollmentRole::Lead) {
                $without[] = $section->name();
                $then = 'without a lead';
            }
            $plan->row(
                new PlanRow(++$n, $then === 'without a lead' ? Verdict::Ask : Verdict::Leaving, [
                    'Section' => Cell::same($section->name()),
                    'Role' => new Cell($role->label(), ''),
                    'Then' => Cell::same($then),
                ]),
            );
        }

        return [$handed, $without];
    }
}
