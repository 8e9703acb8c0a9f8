<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * How common values are among the people known: agreeing on a rare name says more than agreeing on a common one. Shares
 * stand in for u, the chance that two who are not one person agree.
 */
final class Population
{
    public int $people = 0;

    /** @var array<string, int> */
    private array $given = [];

    /** @var array<string, int> */
    private array $family = [];

    /** @var array<string, int> */
    private array $school = [];

    /** @var array<string, array<string, true>> */
    private array $grades = [];

    /** @var array<string, int> */
    private array $sections = [];

    /** @var array<string, int> only contacts that the list names */
    private array $contact = [];

    public function add(Subject $s): void
    {
        $this->people++;
        $this->given[$s->givenKey] = ($this->given[$s->givenKey] ?? 0) + 1;
        $this->family[$s->familyKey] = ($this->family[$s->familyKey] ?? 0) + 1;
        $this->school[$s->schoolId] = ($this->school[$s->schoolId] ?? 0) + 1;
        foreach ($s->sections as $section) {
            $this->sections[$section] = ($this->sections[$section] ?? 0) + 1;
        }
        if ($s->grade !== '') {
            $this->grades[$s->schoolId][$s->grade] = true;
        }
    }

    public function countContact(string $contact, int $people): void
    {
        $this->contact[$contact] = $people;
    }

    public function given(string $key): float
    {
        return $this->share($this->given[$key] ?? 0);
    }

    public function family(string $key): float
    {
        return $this->share($this->family[$key] ?? 0);
    }

    public function school(string $id): float
    {
        return min(0.95, max(0.05, ($this->school[$id] ?? 0) / max(1, $this->people)));
    }

    /**
     * One of the grades of a school: who is at it is in one of them. All alike, so that a list that moves everyone up
     * changes nothing.
     */
    public function grade(string $school): float
    {
        return 1 / max(3, min(13, count($this->grades[$school] ?? [])));
    }

    /** @param  list<string>  $sections those both sides have; the smallest counts */
    public function section(array $sections): float
    {
        $least = min(array_map(fn(string $s): int => $this->sections[$s] ?? 1, $sections ?: ['']));

        return min(0.3, max(0.005, ($least + 5) / ($this->people + 50)));
    }

    /** @param  list<string>  $contacts those both sides have; the rarest counts */
    public function contact(array $contacts): float
    {
        $least = null;
        foreach ($contacts as $contact) {
            $least = min($least ?? PHP_INT_MAX, $this->contact[$contact] ?? 1);
        }

        // Up to a large family an address belongs to one household, and brothers and sisters are weighed by themselves.
        return max(0.00005, (max(0, ($least ?? 1) - 6) + 0.25) / ($this->people + 200));
    }

    private function share(int $count): float
    {
        // One more than seen: in a small school a name that occurs once is not as rare as 1/n would say.
        return min(0.2, ($count + 1) / ($this->people + 200));
    }
}
