<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Codes\Token;

beforeEach(fn() => readyForWork($this));

it('merges two accounts: both sign in to one, undo brings both back', function (): void {
    $this->world->student(
        'Wilhelmina Seabright',
        $this->world->otherSection,
        ['birth_date' => '2018-11-02', 'grade' => '03'],
        'green boat stone',
    );
    DB::table('sign_ins')
        ->where('person_id', $this->world->people['student'])
        ->update([
            'passphrase' => Illuminate\Support\Facades\Crypt::encryptString('maple otter candy'),
            'last_signed_in_at' => '2026-09-01 08:00:00',
        ]);
    $this->world->badge($this->world->people['student'], 'first-card');
    for ($i = 0; $i < 60; $i++) {
        $this->world->person($this->world->school, 'student', 'Child' . chr(97 + ($i % 26)) . " Other$i", [
            'number' => "03$i",
        ]);
    }
    $this->world->lookThrough();
    $pairs = $this->as->getJson("/api/schools/{$this->world->school}/look-alikes")->assertOk();
    expect($pairs->json('clusters'))->toHaveCount(1);
    [$left, $right] = explode('-', $pairs->json('clusters.0.id'));
    $before = World::checksum();
    $base = "/api/schools/{$this->world->school}/look-alikes/$left-$right";
    $pair = $this->as->getJson($base)->assertOk();
    $survivor = $pair->json('accounts.0.survives') ? $left : $right;
    expect($survivor)->toBe($this->world->people['student']);
    $merged = $this->as->postJson("$base/merge", ['fingerprint' => $pair->json('plan.fingerprint')])->assertOk();
    $secrets = DB::table('sign_ins')->where('person_id', $survivor)->pluck('user_name');
    expect($secrets)->toHaveCount(2);
    foreach ($secrets as $userName) {
        $this->app['auth']->forgetGuards();
        $secret = $userName === 'wilhelmina.seabright' ? 'maple otter candy' : 'green boat stone';
        $this->postJson('/api/sign-in', ['user_name' => $userName, 'secret' => $secret])
            ->assertOk()
            ->assertJsonPath('me.id', $survivor);
    }
    $this->get('/b/first-card')->assertRedirect('/');
    expect(auth()->id())->toBe($survivor);
    $this->getJson('/api/home')->assertJsonCount(2, 'students.0.sections');
    DB::table('sign_ins')
        ->where('user_name', '!=', 'wilhelmina.seabright')
        ->whereIn('user_name', $secrets)
        ->update(['last_signed_in_at' => null]);
    DB::table('sign_ins')
        ->where('user_name', 'wilhelmina.seabright')
        ->update(['last_signed_in_at' => '2026-09-01 08:00:00']);
    $this->actingAs($this->world->as('coordinator'))
        ->postJson('/api/ledger/' . $merged->json('id') . '/undo')
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
    $this->getJson("/api/schools/{$this->world->school}/look-alikes")->assertJsonCount(1, 'clusters');
    $this->postJson("$base/apart")->assertOk();
    $this->getJson("/api/schools/{$this->world->school}/look-alikes")->assertJsonCount(0, 'clusters');
});

it('lets a session of a merged account go on as the survivor', function (): void {
    $other = $this->world->student('Noor Haddad', $this->world->section, passphrase: 'maple otter candy');
    auth()->logout();
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => 'maple otter candy'])->assertOk();
    DB::table('people')
        ->where('id', $other)
        ->update(['state' => 'merged', 'merged_into' => $this->world->people['student']]);
    DB::table('sign_ins')
        ->where('person_id', $other)
        ->update(['person_id' => $this->world->people['student']]);
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/me')->assertOk()->assertJsonPath('id', $this->world->people['student']);
});

it('rehearses and turns the year, once, and undoes it byte for byte', function (): void {
    $fifth = $this->world->student('Noor Haddad', null, ['grade' => '05']);
    $held = $this->world->student('Kai Wu', null, ['grade' => '02']);
    $before = World::checksum();
    $wish = [
        'name' => '2027-28',
        'begins' => '2027-08-23',
        'last' => '2028-06-09',
        'carry' => true,
        'held_back' => [$held],
    ];
    $base = "/api/schools/{$this->world->school}/year-turn";
    $this->as
        ->getJson($base)
        ->assertOk()
        ->assertJsonPath('year', '2026-27')
        ->assertJsonPath('nextName', '2027-28')
        ->assertJsonPath('nextLast', '2028-06-11')
        ->assertJsonPath('grades.0', ['order' => 0, 'grade' => 'K', 'students' => 0, 'next' => '1'])
        ->assertJsonPath('grades.5', ['order' => 5, 'grade' => '5', 'students' => 1, 'next' => null]);
    $plan = $this->as->postJson("$base/rehearse", $wish)->assertOk();
    expect(World::checksum())
        ->toBe($before)
        ->and($plan->json('sentence'))
        ->toBe(
            'Archives 2 sections, moves 1 student up a grade, holds 1 back, lets 1 leave and carries 2 ' .
                'sections into 2027-28 under new codes. Rosters, accounts and cards stay.',
        );
    $this->travel(90)->seconds();
    expect($this->as->postJson("$base/rehearse", [...$wish, 'seed' => $plan->json('seed')])->json('fingerprint'))->toBe(
        $plan->json('fingerprint'),
    );
    $this->as
        ->postJson($base, [...$wish, 'seed' => $plan->json('seed'), 'fingerprint' => str_repeat('0', 64)])
        ->assertStatus(409);
    $turned = $this->as
        ->postJson($base, [...$wish, 'seed' => $plan->json('seed'), 'fingerprint' => $plan->json('fingerprint')])
        ->assertOk();
    expect(DB::table('people')->where('id', $fifth)->value('state'))
        ->toBe('left')
        ->and(DB::table('people')->where('id', $held)->value('grade'))
        ->toBe('02')
        ->and(DB::table('people')->where('id', $this->world->people['student'])->value('grade'))
        ->toBe('04')
        ->and(DB::table('join_codes')->where('code', $this->world->code)->value('state'))
        ->toBe('closed');
    $this->as
        ->getJson("/api/sections/{$this->world->section}")
        ->assertJsonPath('state', 'archived')
        ->assertJsonCount(1, 'roster');
    $this->as
        ->getJson("/api/schools/{$this->world->school}/sections")
        ->assertJsonCount(2, 'sections')
        ->assertJsonPath('sections.0.year', '2027-28')
        ->assertJsonPath('sections.0.students', 0);
    $this->as
        ->postJson("$base/rehearse", [...$wish, 'begins' => '2020-08-23'])
        ->assertJsonPath(
            'blockers.0',
            'The next year would begin on 2020-08-23, before 2027-28 did. Correct its dates.',
        );
    $this->as
        ->postJson('/api/ledger/' . $turned->json('id') . '/undo')
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
});

it('says how many sheets cards come to, and what lies where on the first', function (): void {
    $sheet = fn(string $order, int $cards) => $this->as
        ->getJson("/api/schools/{$this->world->school}/card-sheet?layout=cards-a4&order=$order&cards=$cards")
        ->assertOk();
    expect($sheet('cut_stack', 25)->json())
        ->toMatchArray(['pageWidth' => 210, 'cardHeight' => 54, 'columns' => 2, 'rows' => 5, 'sheets' => 3])
        ->and(array_column($sheet('cut_stack', 25)->json('places'), 'card'))
        ->toBe([1, 4, 7, 10, 13, 16, 19, 22, 25, null])
        ->and(array_column($sheet('reading', 4)->json('places'), 'card'))
        ->toBe([1, 2, 3, 4, null, null, null, null, null, null])
        ->and($sheet('reading', 0)->json('sheets'))
        ->toBe(0)
        ->and(count($sheet('reading', 0)->json('places')))
        ->toBe(10)
        ->and($sheet('reading', 1)->json('layouts.1'))
        ->toBe(['layout' => 'cards-a4', 'label' => 'A4, 10 cards of 90 × 54 mm']);
});

it('prints for chosen sections and people, and ends lost cards', function (): void {
    $body = ['section_ids' => [$this->world->section], 'layout' => 'cards-letter', 'order' => 'cut_stack'];
    $this->as
        ->postJson("/api/schools/{$this->world->school}/cards", $body)
        ->assertOk()
        ->assertJson(['state' => 'done', 'what' => '1 login card']);
    $this->world->badge($this->world->people['student'], 'old-card');
    $this->as
        ->postJson("/api/schools/{$this->world->school}/cards", [
            ...$body,
            'lost' => true,
            'person_ids' => [$this->world->people['student']],
        ])
        ->assertOk();
    expect(DB::table('badges')->where('token_hash', Token::hashOf('old-card'))->value('state'))
        ->toBe('lost')
        ->and(DB::table('badges')->where('state', 'live')->count())
        ->toBe(1);
    $this->as
        ->postJson("/api/schools/{$this->world->school}/cards", [
            ...$body,
            'section_ids' => [$this->world->otherSection],
        ])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'There are no students in what was chosen.');
    $this->as->postJson("/api/schools/{$this->world->school}/cards", [...$body, 'layout' => 'tiny'])->assertStatus(422);
    $this->actingAs($this->world->as('assistant'))
        ->postJson("/api/sections/{$this->world->section}/cards", ['layout' => 'cards-a4', 'order' => 'reading'])
        ->assertOk();
    $this->postJson("/api/sections/{$this->world->section}/cards", [
        'layout' => 'cards-a4',
        'order' => 'reading',
        'lost' => true,
    ])->assertStatus(403);
});

it('does the same from the command line: plan, apply, undo, cards', function (): void {
    $folder = scratch();
    file_put_contents("$folder/list.csv", "Name,Grade,Homeroom\nNoor Haddad,3,3 Heron\n");
    $before = World::checksum();
    expect(
        Artisan::call('vantrel:plan', ['file' => "$folder/list.csv", '--school' => 'primary', '--json' => true]),
    )->toBe(0);
    $plan = json_decode(Artisan::output(), true, 64, JSON_THROW_ON_ERROR);
    expect(array_keys($plan))
        ->toBe([
            'sentence',
            'tallies',
            'sheets',
            'rows',
            'leaving',
            'questions',
            'mail_domains',
            'warnings',
            'blockers',
        ])
        ->and($plan['rows'][0])
        ->toMatchArray(['number' => 2, 'verdict' => 'new', 'match' => null, 'problems' => []])
        ->and(World::checksum())
        ->toBe($before);
    expect(Artisan::call('vantrel:apply', ['file' => "$folder/list.csv", '--school' => 'primary']))
        ->toBe(0)
        ->and(DB::table('people')->where('given_name', 'Noor')->exists())
        ->toBeTrue();
    expect(Artisan::call('vantrel:undo', ['entry' => DB::table('ledger_entries')->value('id')]))
        ->toBe(0)
        ->and(World::checksum())
        ->toBe($before);
    file_put_contents("$folder/list.csv", "Name,Grade,Homeroom\nNoor Haddad,3,3 Herom\n");
    expect(Artisan::call('vantrel:apply', ['file' => "$folder/list.csv", '--school' => 'primary']))
        ->toBe(2)
        ->and(World::checksum())
        ->toBe($before);
    Artisan::call('vantrel:plan', ['file' => "$folder/list.csv", '--school' => 'primary', '--json' => true]);
    $question = json_decode(Artisan::output(), true)['questions'][0];
    file_put_contents("$folder/answers.json", json_encode([$question['id'] => 'use'], JSON_THROW_ON_ERROR));
    expect(
        Artisan::call('vantrel:apply', [
            'file' => "$folder/list.csv",
            '--school' => 'primary',
            '--answers' => "$folder/answers.json",
        ]),
    )->toBe(0);
    expect(Artisan::call('vantrel:plan', ['file' => "$folder/list.csv", '--school' => 'nowhere']))
        ->toBe(2)
        ->and(Artisan::output())
        ->toContain('middle, primary');
    expect(Artisan::call('vantrel:plan', ['file' => "$folder/none.csv", '--school' => 'primary']))->toBe(2);
    expect(Artisan::call('vantrel:cards', ['--section' => $this->world->section, '--out' => "$folder/cards.pdf"]))
        ->toBe(0)
        ->and(substr((string) file_get_contents("$folder/cards.pdf"), 0, 5))
        ->toBe('%PDF-');
    expect(Artisan::call('vantrel:cards', ['--school' => 'primary', '--layout' => 'tiny', '--out' => "$folder/x.pdf"]))
        ->toBe(2)
        ->and(Artisan::call('vantrel:cards', ['--school' => 'primary']))
        ->toBe(2);
});

it('has a contract that is not stale', function (): void {
    expect(Artisan::call('vantrel:openapi', ['--check' => true]))->toBe(0);
});
