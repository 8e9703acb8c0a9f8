<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

// A pasted list of numbers, names, addresses or user names selects students: exactly, and nobody is guessed at.

beforeEach(function (): void {
    readyToUndo($this);
    $this->uri = "/api/schools/{$this->world->school}/people/named";
    $student = fn(string $name, array $more = []): string => $this->world->student($name, null, $more);
    $this->ids = [
        'corin' => $student('Corin Quill', ['number' => '020417', 'email' => 'corin@shoremail.example']),
        'jose' => $student('José María Núñez', ['number' => 'A-77']),
        'one' => $student('Ana Sand'),
        'two' => $student('Ana Sand'),
        'left' => $student('Basil Gone', ['number' => '5', 'state' => 'left']),
    ];
    $this->named = fn(string $lines) => $this->postJson($this->uri, ['lines' => $lines])
        ->assertOk()
        ->json();
});

it('finds by number, name, address and user name, each once and in the order of the list', function (): void {
    $found = ($this->named)(
        "Núñez, Jose Maria\r\n20417\n\n  corin@shoremail.example \nCORIN QUILL\n#020417\njose.maria.nunez; 5\nBasil Gone",
    );
    expect(array_column($found['people'], 'id'))
        ->toBe([$this->ids['jose'], $this->ids['corin'], $this->ids['left']])
        ->and($found['nobody'])
        ->toBe([])
        ->and($found['several'])
        ->toBe([]);
});

it('says which lines mean nobody, and which could be several', function (): void {
    $found = ($this->named)("Corin Quil\nAna Sand\nHélène Marchetti\n999\nA-77");
    expect(array_column($found['people'], 'name'))
        ->toBe(['José María Núñez'])
        ->and($found['nobody'])
        ->toBe(['Corin Quil', 'Hélène Marchetti', '999'])
        ->and($found['several'])
        ->toBe(['Ana Sand']);
});

it('finds nobody of another school, no guardian and nobody erased', function (): void {
    $this->world->person($this->world->otherSchool, 'student', 'Far Away', ['number' => '31']);
    $this->world->person($this->world->school, 'guardian', 'Gil Quill', ['number' => '32']);
    DB::table('people')
        ->where('id', $this->ids['corin'])
        ->update(['erased_on' => '2026-11-01']);
    expect(($this->named)("31\n32\nFar Away\nGil Quill\n020417")['people'])->toBe([]);
});

it('takes two thousand lines with as many questions as two, and no more lines', function (): void {
    $count = 0;
    DB::listen(function () use (&$count): void {
        $count++;
    });
    ($this->named)("1\n2");
    $few = $count;
    $count = 0;
    ($this->named)(implode("\n", range(100000, 101999)));
    expect($count)->toBeLessThan($few + 25);
    $this->postJson($this->uri, ['lines' => implode("\n", range(100000, 102000))])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Paste up to 2,000 at a time.');
});

it('places those selected in another homeroom, each out of the one they were in', function (): void {
    $world = $this->world;
    $world->enroll($world->section, $this->ids['corin'], 'student');
    $wish = ['people' => [$this->ids['corin'], $this->ids['jose']], 'to' => $world->otherSection, 'kind' => 'instead'];
    $plan = $this->postJson("/api/schools/$world->school/place/plan", $wish)->assertOk();
    expect($plan->json('rows.1.cells.Section'))->toBe(['before' => '3 Heron', 'after' => '3 Plover']);
    $seen = ['seed' => $plan->json('seed'), 'fingerprint' => $plan->json('fingerprint')];
    $this->postJson("/api/schools/$world->school/place", [...$wish, ...$seen])->assertOk();
    $open = DB::table('enrollments')->where('person_id', $this->ids['corin'])->whereNull('ends_on');
    expect($open->pluck('section_id')->all())->toBe([$world->otherSection]);
    $this->postJson("/api/schools/$world->school/place/plan", [...$wish, 'kind' => 'move'])->assertStatus(422);
});
