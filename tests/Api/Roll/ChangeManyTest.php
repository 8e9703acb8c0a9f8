<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    readyToUndo($this);
    $this->uri = "/api/schools/{$this->world->school}/people/change";
    $this->people = [
        $this->world->student('Noor Castell', $this->world->section, ['grade' => '02']),
        $this->world->student('Kai Roig', $this->world->section, ['grade' => '03']),
    ];
    $this->world->lookThrough();
    $this->look = fn(array $wish): array => $this->postJson("$this->uri/plan", ['people' => $this->people, ...$wish])
        ->assertOk()
        ->json();
    $this->apply = fn(array $wish, array $plan) => $this->postJson($this->uri, [
        'people' => $this->people,
        ...$wish,
        'seed' => $plan['seed'],
        'fingerprint' => $plan['fingerprint'],
    ]);
});

it('changes many as looked at, and back', function (array $wish, string $column, array $after): void {
    $before = World::checksum();
    $plan = ($this->look)($wish);
    expect(World::checksum())->toBe($before);
    ($this->apply)($wish, $plan)->assertOk();
    expect(
        DB::table('people')->whereIn('id', $this->people)->orderBy('number')->orderBy('id')->pluck($column)->all(),
    )->toEqualCanonicalizing($after);
    ($this->undo)((string) DB::table('ledger_entries')->orderByDesc('seq')->value('id'))->assertOk();
    expect(World::checksum())->toBe($before);
})->with([
    [['what' => 'grade', 'grade' => '3'], 'grade', ['03', '03']],
    [['what' => 'leave'], 'state', ['left', 'left']],
    [['what' => 'turn'], 'given_name', ['Castell', 'Roig']],
]);

it('takes who left out of their sections, and finds them as unplaced when they are back', function (): void {
    ($this->apply)(['what' => 'leave'], ($this->look)(['what' => 'leave']))->assertOk();
    $open = fn(): int => DB::table('enrollments')->whereIn('person_id', $this->people)->whereNull('ends_on')->count();
    expect($open())->toBe(0);
    ($this->apply)(['what' => 'back'], ($this->look)(['what' => 'back']))->assertOk();
    $unplaced = $this->getJson("/api/schools/{$this->world->school}/people?kind=student&problem=unplaced");
    expect(array_column($unplaced->json('people'), 'name'))->toContain('Noor Castell', 'Kai Roig');
});

it('changes nobody whom somebody else has changed since it was looked at', function (): void {
    $plan = ($this->look)(['what' => 'grade', 'grade' => '3']);
    ($this->change)($this->people[0], ['grade' => '03']);
    $now = World::checksum();
    ($this->apply)(['what' => 'grade', 'grade' => '3'], $plan)->assertStatus(409);
    expect(World::checksum())->toBe($now);
});

it('knows no grade the school has not, and nobody of another school', function (): void {
    $this->postJson("$this->uri/plan", ['people' => $this->people, 'what' => 'grade', 'grade' => '12'])
        ->assertStatus(422)
        ->assertJsonValidationErrors(['grade']);
    $other = $this->world->person($this->world->otherSchool, 'student', 'Ada Ek');
    $this->postJson("$this->uri/plan", ['people' => [$other], 'what' => 'leave'])->assertStatus(422);
    $this->postJson("$this->uri/plan", ['people' => $this->people, 'what' => 'vanish'])->assertStatus(422);
});
