<?php

declare(strict_types=1);

use App\PrintRoom\FamilyCodes;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Codes\CodeSymbols;

// A guardian who guesses: every route, with the ids of children, sections and people that are not theirs. What they may
// know of is their own children and these children’s sections and teachers.

it('shows a guardian nothing of another child, by whatever id they guess', function (): void {
    $world = World::make();
    $other = $world->student('Secretia Hidden', $world->otherSection, [
        'number' => '990099',
        'birth_date' => '2017-05-05',
        'email' => 'secretia@lanternfield.example',
    ]);
    $their = $world->person($world->school, 'guardian', 'Otheria Hidden', [
        'email' => 'otheria@shoremail.example',
        'phone' => '+12025550177',
    ]);
    $tie = $world->insert('guardianships', ['student_id' => $other, 'guardian_id' => $their, 'state' => 'connected']);
    // A second guardian of the own child, in another household.
    $second = $world->person($world->school, 'guardian', 'Xavier Elsewhere', [
        'email' => 'xavier@shoremail.example',
        'phone' => '+12025550188',
    ]);
    $world->insert('guardianships', [
        'student_id' => $world->people['student'],
        'guardian_id' => $second,
        'state' => 'connected',
    ]);
    $letter = $world->insert('family_letters', [
        'student_id' => $other,
        'language' => 'en',
        'token_hash' => FamilyCodes::hash(CodeSymbols::fromPayload('KDM4X7RTB')),
        'state' => 'live',
        'slip' => 'SLIPABC',
        'made_at' => now(),
    ]);
    $ids = [
        'school' => $world->school,
        'realm' => $world->school,
        'section' => $world->otherSection,
        'person' => $other,
        'tie' => $tie,
        'accounts' => "$other-{$world->people['student']}",
        'intake' => $world->intake(),
        'year' => $world->year,
        'session' => str_repeat('0', 32),
    ];
    $routes = array_filter(
        Routes::getRoutes()->getRoutes(),
        fn(Route $r): bool => str_starts_with($r->uri(), 'api/') && !$r->isFallback,
    );
    $answered = 0;
    $said = '';
    foreach ($routes as $route) {
        $uri =
            '/' .
            preg_replace_callback(
                '/\{(\w+)\}/',
                fn(array $m): string => $ids[$m[1]] ?? (string) Str::ulid(),
                $route->uri(),
            );
        if (str_contains($uri, 'sign-out')) {
            continue;
        }
        foreach (
            [
                [],
                [
                    'person' => $other,
                    'student' => $other,
                    'ids' => [$other, $tie],
                    'guardian' => $their,
                    'letter' => $letter,
                ],
            ]
            as $body
        ) {
            DB::beginTransaction();
            $this->app['auth']->forgetGuards();
            $answer = $this->actingAs($world->as('guardian'))->json($route->methods()[0], $uri, $body);
            DB::rollBack();
            expect($answer->getStatusCode())->not->toBe(500, $uri);
            $answered += (int) ($answer->getStatusCode() < 300);
            $said .= $answer->getContent();
        }
    }
    expect($answered)->toBeGreaterThan(8);
    foreach (
        ['Hidden', 'Secretia', '990099', '2017-05-05', 'otheria', '5550177', 'Xavier', 'xavier', '5550188', '3 Plover']
        as $private
    ) {
        expect(str_contains($said, $private))->toBeFalse($private);
    }
    expect($said)->toContain('Wilhelmina')->toContain('3 Heron');
    // The code of the other child’s letter shows the given name, as it does to whoever holds the letter, and connects
    // nobody.
    $this->actingAs($world->as('guardian'))
        ->postJson('/api/family/connect', ['code' => CodeSymbols::fromPayload('KDM4X7RTB')->written()])
        ->assertJsonPath('connected', false);
    expect(array_column($this->getJson('/api/home')->json('students'), 'givenName'))->toBe(['Wilhelmina']);
});

it('shows nothing by guessed codes and links, and soon listens to no more of them', function (): void {
    config(['vantrel.limits.join-by' => 5]);
    $world = World::make();
    $this->actingAs($world->as('guardian'));
    $statuses = [];
    foreach (range(1, 8) as $i) {
        $code = CodeSymbols::fromPayload(str_repeat('K', 8) . 'KDMXRTBH'[$i - 1])->written();
        $statuses[] = $this->postJson('/api/family/check', ['code' => $code])->getStatusCode();
    }
    expect(array_count_values($statuses))->toBe([422 => 5, 429 => 3]);
    foreach (['check', 'accept', 'decline', 'connect'] as $what) {
        $this->postJson("/api/guardian/$what", ['token' => Str::random(22)])->assertStatus(422);
    }
});
