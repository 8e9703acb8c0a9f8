<?php

declare(strict_types=1);

use App\Models\School;
use App\OneRoster\RosterKeys;
use Illuminate\Support\Facades\DB;
use Tests\Support\RosterClient;
use Tests\Support\World;
use Vantrel\Core\OneRoster\Scope;

// OneRoster 1.2 (1EdTech), from memory: dateLastModified of the service, and delta files of the CSV binding.

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section, ['number' => '020777']);
    $this->travel(1)->hours();
    [$key, $secret] = app(RosterKeys::class)->make(
        School::query()->findOrFail($this->world->school),
        'Seating plans',
        [Scope::Roster],
        $this->world->as('coordinator'),
    );
    $this->client = new RosterClient($this);
    $this->client->signIn($key->id, $secret)->assertOk();
});

it('tells what has changed since, also what was undone', function (): void {
    $school = $this->world->school;
    $since = now()->format('Y-m-d\TH:i:s.v\Z');
    $this->travel(1)->minutes();
    $this->actingAs($this->world->as('coordinator'));
    $version = (int) DB::table('people')->where('id', $this->noor)->value('version');
    $this->postJson("/api/people/$this->noor", ['version' => $version, 'given' => 'Nour'])->assertOk();
    $changed = fn(): array => array_column($this->client->all("users?filter=dateLastModified>'$since'"), 'givenName');
    expect($changed())->toBe(['Nour']);
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $since = now()->format('Y-m-d\TH:i:s.v\Z');
    $this->travel(1)->minutes();
    $this->actingAs($this->world->as('coordinator'));
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    expect($changed())->toBe(['Noor']);
});

it('tells of enrollments and guardians that are other because a section or a student is', function (): void {
    $since = now()->format('Y-m-d\TH:i:s.v\Z');
    $this->travel(1)->minutes();
    $changed = fn(string $of): array => array_column(
        $this->client->all("$of?filter=dateLastModified>'$since'"),
        'status',
        'sourcedId',
    );
    $enrollment = DB::table('enrollments')->where('person_id', $this->noor)->value('id');
    $layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad');
    $this->world->insert('guardianships', [
        'student_id' => $this->noor,
        'guardian_id' => $layla,
        'state' => 'connected',
    ]);
    expect($changed('enrollments'))->toBe([])->and($changed('users'))->toBe([]);
    $this->actingAs($this->world->as('coordinator'));
    $plan = $this->getJson("/api/sections/{$this->world->section}/archive")
        ->assertOk()
        ->json();
    $this->postJson("/api/sections/{$this->world->section}/archive", [
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
    ])->assertOk();
    expect($changed('enrollments'))->toMatchArray([$enrollment => 'tobedeleted']);

    $this->travel(1)->minutes();
    $since = now()->format('Y-m-d\TH:i:s.v\Z');
    $this->travel(1)->minutes();
    $this->actingAs($this->world->as('coordinator'));
    $many = "/api/schools/{$this->world->school}/people/change";
    $leave = ['people' => [$this->noor], 'what' => 'leave'];
    $plan = $this->postJson("$many/plan", $leave)
        ->assertOk()
        ->json();
    $this->postJson($many, [...$leave, 'seed' => $plan['seed'], 'fingerprint' => $plan['fingerprint']])->assertOk();
    expect($changed('users'))->toEqual([$this->noor => 'tobedeleted', $layla => 'tobedeleted']);
});

it('exports what has changed as a delta of the CSV binding, with what is to be deleted', function (): void {
    $this->travel(2)->days();
    $this->actingAs($this->world->as('coordinator'));
    $version = (int) DB::table('people')->where('id', $this->noor)->value('version');
    $this->postJson("/api/people/$this->noor", ['version' => $version, 'given' => 'Nour'])->assertOk();
    $since = now()->format('Y-m-d');
    $answer = $this->get("/api/schools/{$this->world->school}/roster?format=oneroster&since=$since")->assertOk();
    $zip = new ZipArchive();
    $zip->open($answer->baseResponse->getFile()->getPathname());
    $rows = fn(string $table): array => array_map(
        fn(string $line): array => str_getcsv($line, ',', '"', ''),
        array_filter(preg_split('/\r?\n/', trim((string) $zip->getFromName("$table.csv"))) ?: []),
    );
    $manifest = array_column($rows('manifest'), 1, 0);
    [$header, $user] = $rows('users');
    $user = array_combine($header, $user);
    expect([$manifest['file.users'], $manifest['file.roles'], $manifest['file.results']])
        ->toBe(['delta', 'delta', 'absent'])
        ->and($rows('users'))
        ->toHaveCount(2)
        ->and($user)
        ->toMatchArray([
            'givenName' => 'Nour',
            'status' => 'active',
            'identifier' => '020777',
            'preferredGivenName' => '',
        ])
        ->and($user['dateLastModified'])
        ->toStartWith($since)
        ->and($rows('roles')[1][5])
        ->toBe('student')
        ->and($rows('classes'))
        ->toHaveCount(1);
    $this->get("/api/schools/{$this->world->school}/roster?format=oneroster&since=yesterday")->assertStatus(422);
});
