<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Values\GradeLevel;

/**
 * Who leaves when a list is everyone of a school, a grade or a section: the active people of that scope whom no row is,
 * and whom no row that waits or cannot be read may be. Past the trip-wire the plan is blocked until somebody types what
 * will happen.
 */
final class Leavers
{
    /** The trip-wire: this share of the scope, or this many people, whichever is more. */
    public const SHARE = 0.1;

    public const PEOPLE = 20;

    public function __construct(
        private readonly Snapshot $snapshot,
        private readonly Roster $roster,
        private readonly SectionBook $sections,
        private readonly IntakeWish $wish,
        private readonly Scope $scope,
        private readonly PlanBuilder $plan,
    ) {}

    /** Whether one more than these may leave without words. */
    public static function tripWire(int $inScope): int
    {
        return max(self::PEOPLE, (int) floor(self::SHARE * $inScope));
    }

    /**
     * @param  array<string, true>  $kept ids of those some row is or may be
     * @return int how many leave
     */
    public function plan(array $kept): int
    {
        $inScope = $this->inScope();
        $leaving = array_values(array_filter($inScope, fn(Person $p): bool => !isset($kept[$p->id])));
        usort(
            $leaving,
            fn(Person $a, Person $b): int => [$a->familyName(), $a->givenName(), $a->id] <=> [
                $b->familyName(),
                $b->givenName(),
                $b->id,
            ],
        );
        foreach ($leaving as $person) {
            $this->scope->sectionId === null ? $this->leave($person) : $this->remove($person);
        }
        $n = count($leaving);
        if ($n === 0) {
            return 0;
        }
        $words = self::words($n, $this->scope);
        $this->plan->warn(
            $this->scope->sectionId === null
                ? "$n of " .
                    count($inScope) .
                    ' active students ' .
                    ($n === 1 ? 'is' : 'are') .
                    ' not in this list and will be marked as having left; their sections ' .
                    'end today. Their accounts and cards are kept, and undo brings them back.'
                : "$n of " .
                    count($inScope) .
                    " students of {$this->sections->nameOf($this->scope->sectionId)} " .
                    ($n === 1 ? 'is' : 'are') .
                    ' not in this list and will be taken out of it today.',
        );
        if ($n > self::tripWire(count($inScope)) && $this->wish->confirmed !== $words) {
            $this->plan->block(
                "$n of " .
                    count($inScope) .
                    ' would go, more than the ' .
                    self::tripWire(count($inScope)) .
                    " that go without asking. Check that the list is whole; if it is, type “{$words}”.",
            );
        }

        return $n;
    }

    /** Whether whoever applies it shows once more who they are: people lose their sections by it. */
    public static function takePassword(int $leaving): bool
    {
        return $leaving > 0;
    }

    /** What has to be typed: "412 leave". */
    public static function words(int $leaving, Scope $scope): string
    {
        return "$leaving " . ($scope->sectionId === null ? 'leave' : 'are taken out');
    }

    /** @return list<Person> */
    private function inScope(): array
    {
        $found = [];
        foreach ($this->snapshot->all(Person::class) as $person) {
            $here =
                $person->kind() === PersonKind::Student &&
                $person->state() === PersonState::Active &&
                $person->schoolId() === $this->wish->schoolId;
            if (
                $this->scope->sectionId !== null
                    ? $person->kind() === PersonKind::Student &&
                        $this->roster->isIn($person->id, $this->scope->sectionId)
                    : $here && ($this->scope->grade === null || (string) $person->grade() === $this->scope->grade)
            ) {
                $found[] = $person;
            }
        }

        return $found;
    }

    private function leave(Person $person): void
    {
        if ($this->plan->changes(Entity::Person, $person->id)) {
            return;
        }
        $this->plan->update($person, ['state' => 'left'], 'not in the list of everyone');
        $names = [];
        foreach ($this->roster->enrollmentsOf($person->id) as $enrollment) {
            $this->plan->update($enrollment, ['ends_on' => $this->wish->today], 'not in the list of everyone');
            $names[] = $this->sections->nameOf($enrollment->sectionId());
        }
        $this->row($person, implode(', ', $names), 'leaves: not in the list');
    }

    private function remove(Person $person): void
    {
        foreach ($this->roster->enrollmentsOf($person->id) as $enrollment) {
            if ($enrollment->sectionId() === $this->scope->sectionId) {
                $this->plan->update($enrollment, ['ends_on' => $this->wish->today], 'not in the list of the section');
                $this->row($person, $this->sections->nameOf($enrollment->sectionId()), 'is taken out: not in the list');
            }
        }
    }

    private function row(Person $person, string $sections, string $why): void
    {
        $this->plan->row(
            new PlanRow(
                0,
                Verdict::Leaving,
                [
                    'Name' => Cell::same($person->fullName()),
                    'Number' => Cell::same((string) $person->number()),
                    'Grade' => Cell::same(GradeLevel::read((string) $person->grade())?->short() ?? ''),
                    'Section' => new Cell($sections, ''),
                    'Guardians' => Cell::same(''),
                ],
                $why,
                [],
                $person->id,
                $person->number(),
            ),
        );
    }
}
