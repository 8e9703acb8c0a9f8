<?php

declare(strict_types=1);

use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Tests\Support\RouteParameters;
use Tests\Support\World;

// Every route that names something, for people of another school in every role: nothing of it is theirs, named by
// itself or under their own school. `bin/campaign matrix` prints what each got.

const FAR = ['coordinator', 'lead', 'co_teacher', 'assistant', 'substitute', 'student', 'guardian'];

/** Somebody of the other school in each role, with a section and a child of theirs. */
function farPeople(World $world): World
{
    $there = $world->otherSchool;
    $section = $world->section($there, '6 Tern', 'homeroom', '06');
    $child = $world->person($there, 'student', 'Otis Vane', ['number' => '070001', 'grade' => '06']);
    $world->enroll($section, $child, 'student');
    $world->people['far student'] = $child;
    $world->people['far coordinator'] = $world->people['other coordinator'];
    foreach (['lead', 'co_teacher', 'assistant', 'substitute'] as $role) {
        $world->people["far $role"] = $world->staff($there, "Far$role Person");
        $world->enroll($section, $world->people["far $role"], $role);
    }
    $world->people['far guardian'] = $world->person($there, 'guardian', 'Una Vane', [
        'email' => 'una@shoremail.example',
        'email_state' => 'confirmed',
        'email_by' => 'mail',
    ]);
    $world->insert('guardianships', [
        'student_id' => $child,
        'guardian_id' => $world->people['far guardian'],
        'state' => 'connected',
    ]);

    return $world;
}

it('gives nobody anything of another school', function (string $role): void {
    $world = farPeople(World::make());
    $foreign = RouteParameters::of($world);
    // Requests between schools are the other school's too: it is asked.
    unset($foreign['transfer']);
    $before = World::checksum();
    $lines = $wrong = [];
    foreach (Routes::getRoutes()->getRoutes() as $route) {
        /** @var Route $route */
        if (
            !str_starts_with($route->uri(), 'api/') ||
            array_diff($route->parameterNames(), array_keys($foreign)) !== []
        ) {
            continue;
        }
        $names = $route->parameterNames();
        if ($names === [] || $names === ['session'] || $names === ['token']) {
            continue;
        }
        // By itself; and, where it stands under a school, under one's own.
        $ways = [$foreign];
        if (count($names) > 1 && in_array($names[0], ['school', 'realm'], true)) {
            $ways[] = [...$foreign, 'school' => $world->otherSchool, 'realm' => $world->otherSchool];
        }
        foreach ($ways as $i => $parameters) {
            DB::beginTransaction();
            $this->app['auth']->forgetGuards();
            $uri =
                '/' . preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $parameters[$m[1]], $route->uri());
            $method = $route->methods()[0];
            $status = $this->actingAs($world->as("far $role"))
                ->withHeaders(['Accept' => 'application/json'])
                ->json($method, $uri)
                ->getStatusCode();
            DB::rollBack();
            $lines[] =
                "| $method {$route->uri()} | $role of another school | " .
                ($i === 0 ? 'there' : 'under their own') .
                " | $status |";
            // Under one's own school a request may be refused for what it lacks before it is looked for what it names.
            if (!in_array($status, $i === 0 ? [403, 404] : [403, 404, 409, 422], true)) {
                $wrong[] = end($lines);
            }
        }
    }
    $print = getenv('VANTREL_MATRIX');
    if (is_string($print) && $print !== '') {
        file_put_contents($print, implode("\n", $lines) . "\n", FILE_APPEND);
    }
    expect($wrong)->toBe([])->and(count($lines))->toBeGreaterThan(130)->and(World::checksum())->toBe($before);
})->with(FAR);
