<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->travelTo('2026-11-25 15:00:00');
    $this->world = World::make();
    $this->student = (string) DB::table('people')->where('number', '020001')->value('id');
    $this->table = fn(string $name, string $text): UploadedFile => UploadedFile::fake()->createWithContent(
        $name,
        $text,
    );
    $this->works = fn(string $rows): UploadedFile => ($this->table)(
        'lineItems.csv',
        "sourcedId,status,title,dueDate,classSourcedId\n$rows",
    );
    $this->results = fn(string $rows): UploadedFile => ($this->table)(
        'results (1).csv',
        "sourcedId,status,lineItemSourcedId,studentSourcedId,scoreStatus\n$rows",
    );
    $this->of = "/api/sections/{$this->world->section}/notices";
    $this->bring = function (array $files, ?string $at = null, string $as = 'lead') {
        $at ??= $this->of;
        $plan = $this->actingAs($this->world->as($as))
            ->post("$at/gradebook/plan", ['files' => $files], ['Accept' => 'application/json'])
            ->assertOk();

        return $this->post(
            "$at/gradebook",
            ['files' => $files, 'seed' => $plan->json('seed'), 'fingerprint' => $plan->json('fingerprint')],
            ['Accept' => 'application/json'],
        );
    };
});

it(
    'brings work and what is missing into the section by the ids of our own rosters, and before the family',
    function (): void {
        $files = [
            ($this->works)("w1,active,Reading log,2026-11-20,{$this->world->section}\n"),
            ($this->results)("r1,active,w1,$this->student,not submitted\n"),
        ];
        ($this->bring)($files)
            ->assertOk()
            ->assertJsonPath('said', '1 piece of work new, 1 missing in all.')
            ->assertJsonPath('notices.0.title', 'Reading log')
            ->assertJsonPath('notices.0.missing', 1);
        $this->actingAs($this->world->as('guardian'))->getJson('/api/home')->assertOk()->assertSee('Reading log');
        expect(DB::table('notices')->value('source_key'))->toBe('w1');
        ($this->bring)($files)->assertJsonPath('said', 'Nothing is new in it.');
        expect(DB::table('notices')->count())->toBe(1);
    },
);

it('knows classes by name and students by number, where the ids are another program’s', function (): void {
    $zip = tempnam(sys_get_temp_dir(), 'zip');
    $archive = new ZipArchive();
    $archive->open($zip, ZipArchive::OVERWRITE);
    $archive->addFromString(
        'lineItems.csv',
        "sourcedId,title,dueDate,classSourcedId\nw1,Log,2026-11-20,77\nw2,Art,2026-11-20,78\n",
    );
    $archive->addFromString('results.csv', "lineItemSourcedId,studentSourcedId,scoreStatus\nw1,900,not submitted\n");
    $archive->addFromString('classes.csv', "sourcedId,title\n77,3 heron\n78,3 Plover\n");
    $archive->addFromString('users.csv', "sourcedId,identifier,username\n900,020001,\n");
    $archive->close();
    $file = UploadedFile::fake()->createWithContent('gradebook.zip', (string) file_get_contents($zip));
    ($this->bring)([$file])
        ->assertOk()
        ->assertJsonCount(1, 'notices')
        ->assertJsonPath('notices.0.missing', 1);
    // A coordinator brings in the whole school’s.
    ($this->bring)([$file], "/api/schools/{$this->world->school}/notices", 'coordinator')->assertOk();
    expect(DB::table('notices')->orderBy('title')->pluck('section_id', 'title')->all())->toBe([
        'Art' => $this->world->otherSection,
        'Log' => $this->world->section,
    ]);
    unlink($zip);
});

it('takes a file of one class for the section it is brought into, and no other section’s', function (): void {
    ($this->bring)([($this->works)("w1,active,Log,2026-12-20,someone-elses-id\n")])
        ->assertOk()
        ->assertJsonPath('notices.0.title', 'Log');
    ($this->bring)([($this->works)("w2,active,Art,2026-12-20,{$this->world->otherSection}\n")])
        ->assertOk()
        ->assertJsonPath('said', 'Nothing is new in it.');
    expect(DB::table('notices')->count())->toBe(1);
});

it('brings nothing in that was not looked at, and says what is wrong with a file', function (): void {
    $this->actingAs($this->world->as('lead'));
    $post = fn(string $path, array $body) => $this->post("$this->of$path", $body, ['Accept' => 'application/json']);
    $good = ($this->works)("w1,active,Log,2026-12-20,c\n");
    $post('/gradebook', ['files' => [$good]])->assertUnprocessable();
    $seen = $post('/gradebook/plan', ['files' => [$good]])->json();
    $other = ($this->works)("w1,active,Other,2026-12-20,c\n");
    $post('/gradebook', [
        'files' => [$other],
        'seed' => $seen['seed'],
        'fingerprint' => $seen['fingerprint'],
    ])->assertConflict();
    $post('/gradebook/plan', ['files' => [($this->table)('marks.csv', "a,b\n1,2\n")]])
        ->assertUnprocessable()
        ->assertJsonPath(
            'detail',
            'There is no lineItems.csv in it. Export the gradebook as OneRoster CSV, lineItems and results.',
        );
    $post('/gradebook/plan', [
        'files' => [($this->table)('lineItems.zip', "PK\x03\x04 cut off")],
    ])->assertUnprocessable();
    $post('/gradebook/plan', ['files' => []])->assertUnprocessable();
    config(['vantrel.upload_bytes' => 1024]);
    $post('/gradebook/plan', [
        'files' => [($this->works)(str_repeat("w,active,Log,2026-12-20,c\n", 200))],
    ])->assertUnprocessable();
    expect(DB::table('notices')->count())->toBe(0);
});

it('gives work in one line', function (): void {
    $this->actingAs($this->world->as('lead'));
    $this->postJson("$this->of/line", ['text' => 'Reading log, fri'])
        ->assertOk()
        ->assertJsonPath('said', '“Reading log” is due 27 November 2026.')
        ->assertJsonPath('notices.0.day', '2026-11-27');
    $this->postJson("$this->of/line", ['text' => 'Reading log'])
        ->assertUnprocessable()
        ->assertJsonValidationErrors('text');
});
