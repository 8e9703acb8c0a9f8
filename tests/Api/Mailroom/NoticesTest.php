<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->notices = "/api/sections/{$this->world->section}/notices";
    $this->write = fn(array $wish = []) => $this->postJson($this->notices, [
        'kind' => 'notice',
        'title' => 'Bring boots',
        ...$wish,
    ]);
    $this->child = $this->world->people['student'];
    DB::table('guardianships')->update(['state' => 'connected', 'restriction' => null]);
    $this->home = fn(string $role, string $query = '') => $this->actingAs($this->world->as($role))
        ->getJson("/api/home$query")
        ->assertOk()
        ->json('students.0');
});

it('is read by students and guardians of the section, in their language, and by nobody else', function (): void {
    $this->actingAs($this->world->as('lead'));
    ($this->write)([
        'body' => 'It rains.',
        'titles' => ['es' => 'Traer botas'],
        'bodies' => ['es' => 'Llueve.'],
    ])->assertOk();
    ($this->write)(['title' => 'For guardians', 'guardians_only' => true])->assertOk();
    ($this->write)(['kind' => 'date', 'title' => 'Trip', 'day' => now()->addDays(3)->format('Y-m-d')])->assertOk();
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/schools/{$this->world->school}/notices", ['kind' => 'notice', 'title' => 'No school Friday'])
        ->assertOk();
    $titles = fn(array $child, string $part): array => array_column($child[$part], 'title');
    expect($titles(($this->home)('student'), 'new'))
        ->toEqualCanonicalizing(['Bring boots', 'No school Friday'])
        ->and($titles(($this->home)('student'), 'coming'))
        ->toBe(['Trip'])
        ->and($titles(($this->home)('guardian'), 'new'))
        ->toEqualCanonicalizing(['Bring boots', 'For guardians', 'No school Friday'])
        ->and($titles(($this->home)('guardian', '?language=es'), 'new'))
        ->toContain('Traer botas')
        ->not->toContain('Bring boots');
    // A child of another section reads only what the whole school says.
    $other = $this->world->student('Kit Moss');
    $this->actingAs(App\Models\Person::query()->findOrFail($other));
    expect(array_column($this->getJson('/api/home')->json('students.0.new'), 'title'))->toBe(['No school Friday']);
});

it('counts who has seen it, once each, and says names to the lead alone', function (): void {
    $this->actingAs($this->world->as('lead'));
    $id = ($this->write)()->json('notices.0.id');
    foreach (['student', 'student', 'guardian'] as $role) {
        $this->actingAs($this->world->as($role))
            ->postJson('/api/home/seen', ['ids' => [$id]])
            ->assertNoContent();
    }
    // What is not there to be read for somebody is not noted.
    $this->actingAs($this->world->as('other teacher'))
        ->postJson('/api/home/seen', ['ids' => [$id]])
        ->assertNoContent();
    $this->actingAs($this->world->as('assistant'))->getJson($this->notices)->assertJsonPath('notices.0.seen', 2);
    $this->actingAs($this->world->as('co_teacher'))
        ->getJson("$this->notices/$id/readers")
        ->assertForbidden();
    $names = $this->actingAs($this->world->as('lead'))
        ->getJson("$this->notices/$id/readers")
        ->json('names');
    expect($names)->toHaveCount(2)->toContain('Wilhelmina Seabright');
});

it('is changed, withdrawn, and given back by undo', function (): void {
    $this->actingAs($this->world->as('lead'));
    ['id' => $id, 'version' => $version] = ($this->write)()->json('notices.0');
    $this->postJson("$this->notices/$id", ['kind' => 'notice', 'title' => 'Bring coats', 'version' => $version])
        ->assertOk()
        ->assertJsonPath('notices.0.title', 'Bring coats');
    // A colleague who had it open meanwhile writes over nothing.
    $this->postJson("$this->notices/$id", ['kind' => 'notice', 'title' => 'Bring hats', 'version' => $version])
        ->assertStatus(409)
        ->assertJsonPath('detail', fn(string $said): bool => str_starts_with($said, 'Somebody has changed it'));
    $this->deleteJson("$this->notices/$id")
        ->assertOk()
        ->assertJsonPath('notices', []);
    $this->deleteJson("$this->notices/$id")->assertStatus(422);
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->artisan("vantrel:undo $entry")->assertExitCode(0);
    $this->getJson($this->notices)->assertJsonPath('notices.0.title', 'Bring coats');
    // Another section’s lead finds no such notice, and cannot reach it by its id.
    $elsewhere = $this->world->section($this->world->school, 'Elsewhere');
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/sections/$elsewhere/notices/$id", ['kind' => 'notice', 'title' => 'x'])
        ->assertNotFound();
    $this->deleteJson("/api/schools/{$this->world->school}/notices/$id")->assertNotFound();
});

it('says what is missing to the family once somebody has gone through the work', function (): void {
    $other = $this->world->student('Kit Moss', $this->world->section);
    $outsider = $this->world->student('Ada Bell');
    $this->actingAs($this->world->as('co_teacher'));
    $id = ($this->write)(['kind' => 'work', 'title' => 'Reading log', 'day' => now()->subDay()->format('Y-m-d')])->json(
        'notices.0.id',
    );
    expect(($this->home)('guardian')['missing'])->toBe([]);
    $this->actingAs($this->world->as('co_teacher'));
    $sheet = $this->getJson("$this->notices/$id/work")
        ->assertOk()
        ->json('students');
    expect(array_column($sheet, 'personId'))->toEqualCanonicalizing([$this->child, $other]);
    $this->postJson("$this->notices/$id/work", [
        'states' => [$this->child => 'missing', $other => 'done', $outsider => 'missing'],
    ])
        ->assertOk()
        ->assertJsonPath('notices.0.missing', 1)
        ->assertJsonPath('said', '“Reading log” is missing from 1 student.');
    expect(array_column(($this->home)('guardian')['missing'], 'title'))
        ->toBe(['Reading log'])
        ->and(DB::table('work_results')->where('person_id', $outsider)->exists())
        ->toBeFalse();
    $this->actingAs($this->world->as('co_teacher'));
    $this->postJson("$this->notices/$id/work", ['states' => [$this->child => 'lost']])->assertStatus(422);
    $this->postJson("$this->notices/$id/work", ['states' => [$this->child => 'done']])->assertOk();
    expect(($this->home)('guardian')['missing'])->toBe([]);
});

it('keeps for a student what was noted of an account merged into theirs', function (): void {
    $twin = $this->world->student('Wilhelmina Seabright', $this->world->section);
    $this->actingAs($this->world->as('lead'));
    $id = ($this->write)(['kind' => 'work', 'title' => 'Reading log', 'day' => now()->format('Y-m-d')])->json(
        'notices.0.id',
    );
    $this->postJson("$this->notices/$id/work", ['states' => [$this->child => 'missing', $twin => 'done']])->assertOk();
    DB::table('people')
        ->where('id', $twin)
        ->update(['state' => 'merged', 'merged_into' => $this->child]);
    expect(($this->home)('guardian')['missing'])->toBe([]);
});
