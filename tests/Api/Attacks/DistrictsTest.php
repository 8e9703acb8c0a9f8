<?php

declare(strict_types=1);

use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\Support\World;

/*
 * Random districts of three schools, with people who have something at several: what every coordinator is answered
 * about everybody, held against the model of docs/security.md. The model knows who coordinates, teaches and is tied
 * where, and nothing of how the product finds out.
 */

/**
 * @return array{
 *     schools: list<string>,
 *     people: array<string, array<string, mixed>>,
 *     invitations: list<array{string, string, string}>,
 * } people by id: home, kind, what their account opens, what they head, their name, who says their address is theirs
 */
function district(World $world, int $seed): array
{
    mt_srand($seed);
    $schools = [$world->school, $world->otherSchool, $world->school('upper', 'Highmoor Upper', 9, 12)];
    $sections = array_map(
        fn(string $s, int $i): string => $world->section($s, "Room $i"),
        $schools,
        array_keys($schools),
    );
    $any = fn(): int => mt_rand(0, 2);
    $people = $children = [];
    for ($i = 0; $i < 9; $i++) {
        $at = $any();
        $name = "Qx{$i}a Child{$i}z";
        $children[($id = $world->person($schools[$at], 'student', $name, ['number' => "09000$i"]))] = $at;
        $world->enroll($sections[$at], $id, 'student');
        $people[$id] = [
            'home' => $schools[$at],
            'kind' => 'student',
            'opens' => [$schools[$at]],
            'heads' => [],
            'name' => "Qx{$i}a",
            'by' => '',
        ];
    }
    for ($i = 0; $i < 8; $i++) {
        $at = $any();
        $id = $world->staff($schools[$at], "Wv{$i}a Staff{$i}z");
        $by = mt_rand(0, 1) === 1 ? 'mail' : 'school';
        DB::table('people')
            ->where('id', $id)
            ->update(['email_by' => $by]);
        $opens = [$schools[$at]];
        $heads = [];
        foreach ([0, 1, 2] as $s) {
            if (mt_rand(0, 3) === 0) {
                $world->enroll($sections[$s], $id, 'co_teacher');
                $opens[] = $schools[$s];
            }
            if ($i < 5 && mt_rand(0, 2) === 0) {
                $world->coordinates($id, $schools[$s]);
                $opens[] = $heads[] = $schools[$s];
            }
        }
        $people[$id] = [
            'home' => $schools[$at],
            'kind' => 'staff',
            'opens' => $opens,
            'heads' => $heads,
            'name' => "Wv{$i}a",
            'by' => $by,
        ];
    }
    for ($i = 0; $i < 8; $i++) {
        $at = $any();
        $id = $world->person($schools[$at], 'guardian', "Gk{$i}a Kin{$i}z", ['email' => "gk$i@shoremail.example"]);
        $world->signIn($id, "gk$i@shoremail.example", password: 'lantern harbor morning');
        $opens = [$schools[$at]];
        foreach ($children as $child => $where) {
            $state = ['connected', 'listed', 'ended', null, null][mt_rand(0, 4)];
            if ($state !== null) {
                $world->insert('guardianships', ['student_id' => $child, 'guardian_id' => $id, 'state' => $state]);
                $opens = $state === 'ended' ? $opens : [...$opens, $schools[$where]];
            }
        }
        $people[$id] = [
            'home' => $schools[$at],
            'kind' => 'guardian',
            'opens' => $opens,
            'heads' => [],
            'name' => "Gk{$i}a",
            'by' => '',
        ];
    }
    $invitations = [];
    foreach ($people as $id => $of) {
        if ($of['kind'] === 'staff') {
            $at = $any();
            $invitations[] = [
                $world->insert('invitations', [
                    'section_id' => $sections[$at],
                    'email' => (string) DB::table('people')->where('id', $id)->value('email'),
                    'role' => 'co_teacher',
                    'state' => 'invited',
                    'token_hash' => hash('sha256', $id),
                    'sent_at' => now(),
                    'expires_at' => now()->addDay(),
                    'invited_by' => $world->people['lead'],
                ]),
                (string) $id,
                $schools[$at],
            ];
        }
    }

    return ['schools' => $schools, 'people' => $people, 'invitations' => $invitations];
}

it('answers everybody about everybody as the model says', function (int $seed): void {
    $world = World::make();
    ['schools' => $schools, 'people' => $people, 'invitations' => $invitations] = district($world, $seed);
    $cells = 0;
    $wrong = [];
    $ask = function (string $as, Closure $request) use (&$cells): TestResponse {
        DB::beginTransaction();
        $this->app['auth']->forgetGuards();
        $this->actingAs(Person::query()->findOrFail($as));
        $answer = $request();
        DB::rollBack();
        $cells++;

        return $answer;
    };
    $is = function (bool $expected, bool $got, string $what) use (&$wrong): void {
        if ($expected !== $got) {
            $wrong[] = $what . ($expected ? ' is refused' : ' is done');
        }
    };
    $further = fn(TestResponse $r): bool => $r->getStatusCode() === 422 &&
        str_contains((string) $r->json('detail'), 'more than your schools');
    foreach ($people as $actor => $me) {
        foreach ($me['kind'] === 'staff' ? $people : [] as $id => $of) {
            $mine = in_array($of['home'], $me['heads'], true);
            $held = array_diff($of['opens'], $me['heads']) === [];
            $what = "{$me['name']} on {$of['name']}";
            $read = $ask($actor, fn() => $this->getJson("/api/people/$id"));
            $is($mine, $read->getStatusCode() === 200, "$what: reading");
            $version = (int) DB::table('people')->where('id', $id)->value('version');
            $edit = $ask(
                $actor,
                fn() => $this->postJson("/api/people/$id", [
                    'version' => $version,
                    'email' => "new.$version.$id@shoremail.example",
                ]),
            );
            $is($mine && $held, $edit->getStatusCode() === 200, "$what: another address");
            if (!$mine) {
                continue;
            }
            foreach (['sign-in-link', 'sign-in-slip', 'erase/plan'] as $way) {
                $is($held, !$further($ask($actor, fn() => $this->postJson("/api/people/$id/$way"))), "$what: $way");
            }
            $is(
                array_diff($of['heads'], $me['heads']) === [],
                !$further($ask($actor, fn() => $this->postJson("/api/people/$id/credentials/end-all"))),
                "$what: ending all",
            );
        }
        // Nobody of a school one does not coordinate stands in what a coordinator reads of the Roll.
        foreach ($me['kind'] === 'staff' ? $schools : [] as $school) {
            $roll = $ask($actor, fn() => $this->getJson("/api/schools/$school/people?kind=student"));
            $is(in_array($school, $me['heads'], true), $roll->getStatusCode() === 200, "{$me['name']}: the Roll");
            foreach ($roll->getStatusCode() === 200 ? $people : [] as $of) {
                if ($of['home'] !== $school && str_contains((string) $roll->getContent(), $of['name'])) {
                    $wrong[] = "{$me['name']} reads {$of['name']} in a Roll that is not theirs";
                }
            }
        }
    }
    foreach ($invitations as [$invitation, $to, $school]) {
        foreach ($people as $actor => $me) {
            $counts = $actor === $to && ($me['by'] === 'mail' || $me['home'] === $school);
            $answer = $ask(
                $actor,
                fn() => $this->postJson("/api/invitations/$invitation/answer", ['answer' => 'accept']),
            );
            $is($counts, $answer->getStatusCode() === 200, "{$me['name']} answers an invitation");
        }
    }
    expect($wrong)->toBe([])->and($cells)->toBeGreaterThan(500);
})->with(fn(): array => range(1, (int) (getenv('VANTREL_DISTRICTS') ?: 1)));
