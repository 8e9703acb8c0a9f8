<?php

declare(strict_types=1);

use App\Models\School;
use App\OneRoster\RosterKeys;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Tests\Support\RosterClient;
use Tests\Support\World;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\OneRoster\Kind;
use Vantrel\Core\OneRoster\Query;
use Vantrel\Core\OneRoster\Scope;
use Vantrel\Core\OneRoster\Values;

// OneRoster 1.2, Rostering Service (1EdTech): what the service answers is held against the standard's lists of fields
// by a client that knows nothing else. The lists are from memory, see Tests\Support\RosterClient.

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section, [
        'number' => '020777',
        'birth_date' => '2018-03-04',
        'grade' => '03',
        'email' => 'noor@lanternfield.example',
    ]);
    $this->world->student("Siobhán O'Neill_50%", $this->world->otherSection, ['grade' => '03', 'number' => '020778']);
    foreach (['Ömer Çelik', 'Ana Maria Souza', 'Bo Li', 'Zoë Zimmer', 'adele Adams'] as $i => $name) {
        $this->world->student($name, $i % 2 === 0 ? $this->world->section : null, [
            'number' => "02$i",
            'grade' => $i < 2 ? '04' : null,
        ]);
    }
    $this->key = function (array $scopes, ?string $school = null): RosterClient {
        [$key, $secret] = app(RosterKeys::class)->make(
            School::query()->findOrFail($school ?? $this->world->school),
            'Seating plans',
            $scopes,
            $this->world->as('coordinator'),
        );
        $this->lastKey = $key;
        $client = new RosterClient($this);
        $client->signIn($key->id, $secret)->assertOk();

        return $client;
    };
    $this->client = ($this->key)([Scope::Roster, Scope::Demographics]);
});

it('answers every collection as the standard has it, field by field', function (): void {
    $counts = [];
    foreach (Kind::cases() as $kind) {
        foreach (array_keys($kind->collections()) as $collection) {
            $records = $this->client->all("$collection?limit=3");
            $counts[$collection] = count($records);
            foreach ($records as $record) {
                expect(RosterClient::problems($kind->one(), $record))->toBe([], "$collection $record[sourcedId]");
                foreach ($kind->fields() as $field) {
                    expect($field->problem($record[$field->name] ?? null))->toBeNull();
                }
            }
            if ($records !== []) {
                $one = $this->client
                    ->get("$collection/{$records[0]['sourcedId']}")
                    ->assertOk()
                    ->json();
                expect($one)->toBe([$kind->one() => $records[0]]);
            }
        }
    }
    expect($counts)->toMatchArray([
        'orgs' => 1,
        'schools' => 1,
        'academicSessions' => 1,
        'terms' => 0,
        'courses' => 2,
        'classes' => 2,
        'students' => 8,
        'enrollments' => 10,
        'demographics' => 8,
    ]);
    // Whoever stands in for some days has no role in the standard, and is not told as a teacher.
    expect(json_encode($this->client->all('enrollments')))->not->toContain($this->world->people['substitute']);
});

it('follows references from record to record', function (): void {
    foreach ($this->client->all('enrollments') as $enrollment) {
        foreach (['user' => 'user', 'class' => 'class', 'school' => 'org'] as $field => $name) {
            $this->client
                ->get($enrollment[$field]['href'])
                ->assertOk()
                ->assertJsonPath("$name.sourcedId", $enrollment[$field]['sourcedId']);
        }
    }
    foreach ($this->client->all('students') as $student) {
        foreach ($student['agents'] ?? [] as $agent) {
            $guardian = $this->client->get($agent['href'])->assertOk()->json('user');
            expect($guardian['roles'][0]['role'])
                ->toBe('guardian')
                ->and(array_column($guardian['agents'], 'sourcedId'))
                ->toContain($student['sourcedId']);
        }
    }
});

it('has the collections within others', function (): void {
    $school = $this->world->school;
    $class = $this->world->section;
    $ids = fn(string $path): array => array_column($this->client->all($path), 'sourcedId');
    $inClass = DB::table('enrollments')
        ->where('section_id', $class)
        ->where('role', 'student')
        ->pluck('person_id')
        ->sort()
        ->values()
        ->all();
    expect($ids("classes/$class/students"))
        ->toBe($inClass)
        ->and($ids("schools/$school/classes/$class/students"))
        ->toBe($inClass)
        ->and($ids("schools/$school/students"))
        ->toHaveCount(8)
        ->and($ids("students/{$inClass[0]}/classes"))
        ->toContain($class)
        ->and($ids("terms/{$this->world->year}/classes"))
        ->toHaveCount(2)
        ->and($ids("classes/$class/enrollments"))
        ->toHaveCount(count($inClass) + 3)
        ->and($ids("classes/$class/teachers"))
        ->toHaveCount(3);
    foreach (
        [
            "schools/$class/students",
            "classes/$school/students",
            "classes/$class/demographics",
            'nothing',
            "users/$class",
        ]
        as $none
    ) {
        $this->client
            ->get($none)
            ->assertNotFound()
            ->assertJsonPath('imsx_CodeMinor.imsx_codeMinorField.0.imsx_codeMinorFieldValue', 'unknownobject');
    }
});

it('takes every filter as the same records by hand do', function (): void {
    $random = new KeyedStream('a key of sixteen bytes', 'filters');
    $pick = fn(array $of): mixed => $of[$random->below(count($of))];
    $tried = $found = 0;
    foreach ([Kind::Users, Kind::Classes, Kind::Enrollments, Kind::Demographics] as $kind) {
        $records = $this->client->all("$kind->value?limit=5000");
        $fields = [];
        foreach ($records as $record) {
            foreach (array_keys($kind->fields()) as $field) {
                foreach (['', '.sourcedId', '.role', '.roleType'] as $inner) {
                    foreach (Values::of($record, "$field$inner") as $value) {
                        $fields["$field$inner"][$value] = $value;
                    }
                }
            }
        }
        for ($i = 0; $i < 120; $i++) {
            $terms = [];
            foreach (range(0, $random->below(2)) as $_) {
                $field = $pick(array_keys($fields));
                $value = $pick(array_values($fields[$field]));
                if ($random->below(4) === 0 && $field !== 'dateLastModified') {
                    $value = mb_substr($value, 0, 1 + $random->below(3));
                }
                $value = $random->below(3) === 0 && $field !== 'dateLastModified' ? mb_strtoupper($value) : $value;
                $terms[] =
                    $field . $pick(['=', '!=', '>', '>=', '<', '<=', '~']) . "'" . str_replace("'", "''", $value) . "'";
            }
            $filter = implode($pick([' AND ', ' OR ']), $terms);
            $sortable = array_filter(
                array_keys($fields),
                fn(string $f): bool => !str_contains($f, '.') && !$kind->fields()[$f]->many,
            );
            $typed = [
                'filter' => $filter,
                'limit' => (string) (1 + $random->below(9)),
                'offset' => (string) $random->below(4),
            ];
            if ($random->below(2) === 0) {
                $typed += ['sort' => $pick(array_values($sortable)), 'orderBy' => $pick(['asc', 'desc'])];
            }
            [$wanted, $total] = Values::page($records, Query::read($typed, $kind));
            $answer = $this->client->get("$kind->value?" . http_build_query($typed));
            expect($answer->getStatusCode())->toBe(200, $filter);
            expect($answer->json($kind->value))->toBe($wanted, json_encode($typed));
            expect((int) $answer->headers->get('X-Total-Count'))->toBe($total, $filter);
            $tried++;
            $found += (int) ($total > 0);
        }
    }
    expect($tried)->toBe(480)->and($found)->toBeGreaterThan(200);
});

it('gives the fields asked for, and says what it cannot do', function (): void {
    expect(array_keys($this->client->all('users?fields=sourcedId,givenName')[0]))->toBe(['sourcedId', 'givenName']);
    foreach (
        [
            'users?fields=shoeSize' => [400, 'invalid_selection_field'],
            "users?filter=shoeSize='41'" => [400, 'invalid_filter_field'],
            'users?filter=givenName=Noor' => [400, 'invalid_filter_field'],
            "users?filter=givenName='a' AND familyName='b' OR email='c'" => [400, 'invalid_filter_field'],
            "users?filter=dateLastModified>'yesterday'" => [400, 'invalid_filter_field'],
            "users?filter=dateLastModified>'2026-13-45'" => [400, 'invalid_filter_field'],
            'users?sort=agents' => [400, 'invalid_sort_field'],
            'users?limit=0' => [422, 'invaliddata'],
            'users?offset=-1' => [422, 'invaliddata'],
            'users?orderBy=up' => [422, 'invaliddata'],
            "users?filter=givenName='' OR ''='" => [400, 'invalid_filter_field'],
        ]
        as $path => [$status, $minor]
    ) {
        $answer = $this->client->get(str_replace(' ', '%20', $path));
        expect([
            $answer->getStatusCode(),
            $answer->json('imsx_CodeMinor.imsx_codeMinorField.0.imsx_codeMinorFieldValue'),
            $answer->json('imsx_codeMajor'),
        ])->toBe([$status, $minor, 'failure'], $path);
    }
    $this->client
        ->get("users?filter=familyName%3D'x''%3B DROP TABLE people--'")
        ->assertOk()
        ->assertJsonPath('users', []);
});

it('shows a key no more than its scope, in whatever way it asks', function (): void {
    $core = ($this->key)([Scope::Core]);
    $said = json_encode([$core->all('users'), $core->all('enrollments'), $core->all('students')]);
    foreach (['@', 'username', '020777', 'Marchetti', 'guardian', 'agents', 'birthDate'] as $private) {
        expect(str_contains($said, $private))->toBeFalse($private);
    }
    $core->get('demographics')->assertForbidden();
    $core->get("users/{$this->world->people['guardian']}")->assertNotFound();
    foreach (
        [
            "users?filter=email~'noor'",
            "users?filter=identifier='020777'",
            "users?filter=agents.sourcedId='x'",
            'users?sort=email',
            'users?fields=phone',
        ]
        as $sly
    ) {
        $core->get($sly)->assertStatus(400);
    }
    $born = ($this->key)([Scope::Demographics]);
    $born->get('users')->assertForbidden();
    expect($born->all('demographics'))->toHaveCount(8);
    // Each key is of one school.
    $far = ($this->key)([Scope::Roster], $this->world->otherSchool);
    expect($far->all('students'))->toBe([]);
    $far->get("users/$this->noor")->assertNotFound();
    $far->get("classes/{$this->world->section}")->assertNotFound();
    $far->get("classes/{$this->world->section}/students")->assertNotFound();
    $far->get("students/$this->noor/classes")->assertNotFound();
});

it('never tells of a guardian who is kept away, nor how to reach one who was disconnected', function (): void {
    $tie = DB::table('guardianships')->where('guardian_id', $this->world->people['guardian']);
    expect(json_encode($this->client->all('users')))->toContain('helene@shoremail.example');
    $tie->update(['restriction' => 'court order']);
    $said = json_encode($this->client->all('users'));
    expect($said)->not->toContain('helene@')->not->toContain('agents');
    $gone = $this->client->get("users/{$this->world->people['guardian']}")->json('user');
    expect($gone)
        ->toMatchArray(['status' => 'tobedeleted', 'enabledUser' => 'false'])
        ->not->toHaveKeys(['email', 'phone', 'agents', 'username']);
});

it('says also what fails, and what is too much, in the words of the standard', function (): void {
    Route::get('ims/breaks', fn() => throw new LogicException('broken'));
    Route::get('ims/waits', fn() => throw new TooManyRequestsHttpException(30));
    $minor = 'imsx_CodeMinor.imsx_codeMinorField.0.imsx_codeMinorFieldValue';
    $this->getJson('/ims/breaks')
        ->assertStatus(500)
        ->assertJsonPath($minor, 'internal_server_error')
        ->assertDontSee('broken');
    $this->get('/ims/waits')
        ->assertStatus(429)
        ->assertHeader('Retry-After', '30')
        ->assertJsonPath($minor, 'server_busy');
});

it('gives tokens as RFC 6749 has it, and none once a key has ended', function (): void {
    $base = ['grant_type' => 'client_credentials'];
    [$key, $secret] = app(RosterKeys::class)->make(
        School::query()->findOrFail($this->world->school),
        'Library',
        [Scope::Core],
        $this->world->as('coordinator'),
    );
    $client = new RosterClient($this);
    // 5.1: no store, a bearer token, for so long.
    $client
        ->signIn($key->id, $secret, Scope::Core->value)
        ->assertOk()
        ->assertJson(['token_type' => 'Bearer', 'expires_in' => 3600, 'scope' => Scope::Core->value])
        ->assertHeader('Pragma', 'no-cache');
    // 5.2: the errors.
    (new RosterClient($this))
        ->signIn($key->id, 'wrong')
        ->assertStatus(401)
        ->assertExactJson(['error' => 'invalid_client'])
        ->assertHeader('WWW-Authenticate');
    (new RosterClient($this))
        ->signIn($key->id, $secret, Scope::Roster->value)
        ->assertStatus(400)
        ->assertExactJson(['error' => 'invalid_scope']);
    $this->post('/ims/oneroster/token', ['grant_type' => 'password'])
        ->assertStatus(400)
        ->assertExactJson(['error' => 'unsupported_grant_type']);
    // 2.3.1: in the body as well.
    $this->flushHeaders()
        ->post('/ims/oneroster/token', [...$base, 'client_id' => $key->id, 'client_secret' => $secret])
        ->assertOk();
    $client->get('classes')->assertOk();
    $page = $this->flushHeaders()
        ->actingAs($this->world->as('coordinator'))
        ->getJson("/api/schools/{$this->world->school}/roster-keys")
        ->json('keys');
    expect(collect($page)->firstWhere('id', $key->id)['lastUsedAt'])->not->toBeNull();
    $this->deleteJson("/api/schools/{$this->world->school}/roster-keys/$key->id")->assertOk();
    $client
        ->get('classes')
        ->assertStatus(401)
        ->assertJsonPath('imsx_CodeMinor.imsx_codeMinorField.0.imsx_codeMinorFieldValue', 'unauthorisedrequest');
    $client->signIn($key->id, $secret)->assertStatus(401);
    expect(DB::table('roster_keys')->where('id', $key->id)->value('secret_hash'))->not->toContain($secret);
    // After an hour a token is over.
    $fresh = ($this->key)([Scope::Core]);
    $fresh->get('classes')->assertOk();
    $this->travel(61)->minutes();
    $fresh->get('classes')->assertStatus(401);
    $this->flushHeaders()->get('/ims/oneroster/rostering/v1p2/users')->assertStatus(401);
});

it('makes and ends keys from the settings, the secret once', function (): void {
    $at = "/api/schools/{$this->world->school}/roster-keys";
    $this->actingAs($this->world->as('coordinator'));
    $this->postJson($at, ['name' => '', 'scopes' => ['core']])->assertStatus(422);
    $this->postJson($at, ['name' => 'Library', 'scopes' => []])->assertStatus(422);
    $this->postJson($at, ['name' => 'Library', 'scopes' => ['everything']])->assertStatus(422);
    $made = $this->postJson($at, ['name' => 'Library', 'scopes' => ['core', 'demographics']])
        ->assertOk()
        ->json();
    expect($made['secret'])->not->toBe('')->and($made['base'])->toEndWith('/ims/oneroster/rostering/v1p2');
    expect($this->getJson($at)->json('secret'))->toBe('');
    $this->deleteJson("/api/schools/{$this->world->otherSchool}/roster-keys/{$made['made']}")->assertForbidden();
});
