<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

/** @param  array<string, string|int|null>  $more */
function place(string $id, string $name, array $more = []): Section
{
    return new Section($id, 1, [
        'name' => $name,
        'kind' => 'homeroom',
        'state' => 'open',
        'period' => null,
        'seats' => null,
        'school_year_id' => 'y',
        ...$more,
    ]);
}

function mover(string $id, string $state = 'active'): Person
{
    return new Person($id, 1, [
        'given_name' => ucfirst($id),
        'family_name' => 'Rao',
        'kind' => 'student',
        'state' => $state,
    ]);
}

function in(string $id, string $person, string $section, string $from = '2026-08-24', ?string $to = null): Enrollment
{
    return new Enrollment($id, 1, [
        'person_id' => $person,
        'section_id' => $section,
        'begins_on' => $from,
        'ends_on' => $to,
        'role' => 'student',
        'source' => 'list',
    ]);
}

function changeWords(Plan $plan): array
{
    return array_map(
        fn(Change $c): string => $c->inserts()
            ? "in {$c->after['section_id']} {$c->after['begins_on']}"
            : "out {$c->id} {$c->after['ends_on']}",
        $plan->changes,
    );
}
