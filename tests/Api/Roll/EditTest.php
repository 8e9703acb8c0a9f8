<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// One person is changed by hand, field by field; the Ledger has what was, and undo brings it back.

beforeEach(function (): void {
    readyToUndo($this);
    $this->noor = $this->world->student('Noor Castell', null, ['number' => '020417', 'grade' => '02']);
    $this->world->lookThrough();
    $this->edit = fn(array $wish) => $this->postJson("/api/people/$this->noor", [
        'version' => (int) DB::table('people')->where('id', $this->noor)->value('version'),
        ...$wish,
    ]);
});

it('changes, says what was and what is, is found by the new name, and goes back', function (): void {
    $before = World::checksum();
    $entry = ($this->edit)(['family' => 'Brightwater', 'grade' => '3'])
        ->assertOk()
        ->json();
    $person = $this->getJson("/api/people/$this->noor")
        ->assertOk()
        ->json();
    expect($entry['title'])
        ->toBe('Noor Castell')
        ->and($person['family'])
        ->toBe('Brightwater')
        ->and($person['gradeCode'])
        ->toBe('03')
        ->and($person['history'][0]['changes'])
        ->toBe([
            ['field' => 'family name', 'before' => 'Castell', 'after' => 'Brightwater'],
            ['field' => 'grade', 'before' => '2', 'after' => '3'],
        ]);
    $found = $this->getJson("/api/schools/{$this->world->school}/find?q=brightwater")->json('people');
    expect(array_column($found, 'id'))->toBe([$this->noor]);
    ($this->undo)($entry['id'])->assertOk();
    expect(World::checksum())
        ->toBe($before)
        ->and($this->getJson("/api/people/$this->noor")->json('history.0.undone'))
        ->toBeTrue();
});

it('empties what is left empty, and leaves what is left out', function (): void {
    ($this->edit)(['number' => '', 'given' => 'Noor', 'email' => '', 'phone' => ''])->assertOk();
    $person = (array) DB::table('people')
        ->where('id', $this->noor)
        ->first(['number', 'grade', 'family_name']);
    expect($person)->toBe(['number' => null, 'grade' => '02', 'family_name' => 'Castell']);
    ($this->edit)(['given' => '', 'family' => ''])
        ->assertStatus(422)
        ->assertJsonValidationErrors(['given']);
});

it('writes nothing over what somebody else has changed in the meantime', function (): void {
    $seen = (int) DB::table('people')->where('id', $this->noor)->value('version');
    ($this->edit)(['given' => 'Nour'])->assertOk();
    $now = World::checksum();
    $this->postJson("/api/people/$this->noor", ['version' => $seen, 'given' => 'Nora'])->assertStatus(409);
    expect(World::checksum())->toBe($now);
});

it('says what is wrong at its field, and that nothing is other', function (array $wish, ?string $field): void {
    $this->world->student('Kai Roig', null, ['number' => '020418']);
    $response = ($this->edit)($wish)->assertStatus(422);
    expect(array_keys($response->json('errors') ?? []))->toBe($field === null ? [] : [$field]);
})->with([
    [['number' => '020418'], 'number'],
    [['birth_date' => 'yesterday'], 'birth_date'],
    [['given' => 'Noor'], null],
    [[], null],
]);

it('lets nobody move the mail of whoever looks after schools that they do not', function (): void {
    $both = $this->world->staff($this->world->school, 'Ines Roig');
    $this->world->coordinates($both, $this->world->otherSchool);
    $wish = fn(array $of): array => [
        'version' => (int) DB::table('people')->where('id', $both)->value('version'),
        ...$of,
    ];
    $this->postJson("/api/people/$both", $wish(['email' => 'mine@lanternfield.example']))
        ->assertStatus(422)
        ->assertJsonValidationErrors(['email' => 'for them to change']);
    $this->postJson("/api/people/$both", $wish(['phone' => '202-555-0143']))->assertOk();
});

it('is for those who coordinate the school', function (): void {
    foreach (['lead', 'student', 'other coordinator'] as $role) {
        $this->actingAs($this->world->as($role));
        ($this->edit)(['given' => 'Mallory'])->assertStatus(403);
    }
});
