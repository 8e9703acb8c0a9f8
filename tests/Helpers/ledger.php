<?php

declare(strict_types=1);

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;

function ulid(): string
{
    return (string) Str::ulid();
}

/** Renames the student, makes a guardian and links the two. */
function somePlan(World $world, string $name = 'Mina'): Plan
{
    $plan = new PlanBuilder();
    $guardian = ulid();
    $plan->update(
        app(Snapshots::class)->find(Person::class, $world->people['student']),
        ['given_name' => $name, 'grade' => null],
        'renamed',
    );
    // In the wrong order on purpose: the ledger writes what others refer to first.
    $plan->insert(
        Entity::Guardianship,
        ulid(),
        [
            'student_id' => $world->people['student'],
            'guardian_id' => $guardian,
            'state' => 'listed',
            'relationship' => null,
            'restriction' => null,
        ],
        'linked',
    );
    $plan->insert(
        Entity::Person,
        $guardian,
        [
            'school_id' => $world->school,
            'kind' => 'guardian',
            'given_name' => 'Ann',
            'family_name' => 'O’Dwyer "Łukasz" 王',
            'search_name' => 'ann odwyer',
            'birth_date' => null,
            'number' => null,
            'grade' => null,
            'email' => 'ann@x.example',
            'phone' => null,
            'state' => 'active',
            'merged_into' => null,
        ],
        'made',
    );

    return $plan->build('Some plan', 'Does something.');
}

/** What every test of them begins with. */
function readyForTheLedger(object $test): void
{
    $test->world = World::make();
    $test->ledger = app(Ledger::class);
}
