<?php

declare(strict_types=1);

use Tests\Support\World;

/** What every test of them begins with. */
function readyInSections(object $test): void
{
    $test->world = World::make();
    $test->section = $test->world->section;
    $test->school = $test->world->school;
    $test->as = fn(string $role) => $test->actingAs($test->world->as($role));
    $test->today = gmdate('Y-m-d');
    $test->day = fn(int $days): string => gmdate('Y-m-d', time() + 86400 * $days);
    // Looks at a plan and applies it as looked at.
    $test->apply = function (string $uri, array $body) use ($test) {
        $plan = $test
            ->postJson("$uri/plan", $body)
            ->assertOk()
            ->json();
        $test->plan = $plan;
        // Nobody reads a plan in no time.
        $test->travel(90)->seconds();

        return $test->postJson($uri, [...$body, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']]);
    };
    $test->names = fn(string $section, ?string $day = null): array => $test
        ->getJson("/api/sections/$section" . ($day === null ? '' : "?as_of=$day"))
        ->json('roster.*.name');
}
