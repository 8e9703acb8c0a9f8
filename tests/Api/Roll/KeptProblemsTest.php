<?php

declare(strict_types=1);

use App\Roll\KeptProblems;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

// Who has which problem is kept, and follows what is written, who signs in, and the day. That it follows every entry,
// HistoriesTest holds against the records.

beforeEach(function (): void {
    readyToUndo($this);
    $this->world->lookThrough();
    $this->uri = "/api/schools/{$this->world->school}";
    $this->have = fn(string $problem): array => array_column(
        $this->getJson("$this->uri/people?kind=student&problem=$problem")
            ->assertOk()
            ->json('people'),
        'name',
    );
    $this->onDesk = fn(string $key): int => collect($this->getJson("$this->uri/desk")->json('loops'))->firstWhere(
        'key',
        $key,
    )['count'] ?? 0;
});

it('follows an entry, its undo, and doing it again', function (): void {
    $noor = $this->world->student('Noor Castell', null, ['birth_date' => '2015-08-03', 'grade' => '05']);
    $this->world->lookThrough();
    expect(($this->have)('grade_unlike_age'))->toBe([]);
    $entry = ($this->change)($noor, ['birth_date' => '1995-08-03']);
    expect(($this->have)('grade_unlike_age'))->toBe(['Noor Castell']);
    $this->postJson("/api/ledger/$entry->id/undo")->assertOk();
    expect(($this->have)('grade_unlike_age'))->toBe([]);
    $this->postJson("/api/ledger/$entry->id/redo")->assertOk();
    expect(($this->have)('grade_unlike_age'))->toBe(['Noor Castell']);
});

it('finds who has several problems at once, and those who left for the one problem that is theirs', function (): void {
    $this->world->student('Noor Castell', null, ['birth_date' => null]);
    $this->world->student('Kai Roig', null, ['birth_date' => '2015-08-03']);
    $this->world->student('Ada Ek', $this->world->section, ['birth_date' => null, 'state' => 'left']);
    $this->world->lookThrough();
    expect(($this->have)('no_birth_date,unplaced'))
        ->toContain('Noor Castell')
        ->not->toContain('Kai Roig')
        ->and(($this->have)('unplaced'))
        ->toContain('Kai Roig')
        ->and(($this->have)('left_enrolled'))
        ->toBe(['Ada Ek'])
        ->and(($this->have)('left_enrolled,unplaced'))
        ->toBe([]);
});

it('counts one number for two, whichever of them is changed', function (): void {
    $noor = $this->world->student('Noor Castell', null, ['number' => '020417']);
    $kai = $this->world->student('Kai Roig', null, ['number' => '20417']);
    $this->world->lookThrough();
    expect(($this->have)('number_twice'))->toBe(['Noor Castell', 'Kai Roig']);
    $entry = ($this->change)($kai, ['number' => '20418']);
    expect(($this->have)('number_twice'))->toBe([]);
    ($this->undo)($entry->id)->assertOk();
    expect(($this->have)('number_twice'))->toBe(['Noor Castell', 'Kai Roig']);
    ($this->change)($noor, ['state' => 'left']);
    expect(($this->have)('number_twice'))->toBe(['Kai Roig']);
});

it('counts no number for two when the other bearer is undone', function (): void {
    $this->world->student('Noor Castell', null, ['number' => '020417']);
    $this->world->lookThrough();
    $list = ($this->list)("Student number,Given name,Family name,Grade\n0020417,Xanthe,Quillfeather,3\n");
    expect(($this->have)('number_twice'))->toBe(['Noor Castell', 'Xanthe Quillfeather']);
    ($this->undo)($list)->assertOk();
    expect(($this->have)('number_twice'))->toBe([]);
});

it('follows the first sign-in, the card, and the school’s mail domains', function (): void {
    $before = ($this->onDesk)('never_signed_in');
    $this->world->student('Noor Castell', passphrase: 'maple otter candy');
    $this->world->lookThrough();
    expect(($this->onDesk)('never_signed_in'))->toBe($before + 1);
    $name = DB::table('sign_ins')
        ->join('people', 'people.id', '=', 'person_id')
        ->where('family_name', 'Castell')
        ->value('user_name');
    auth()->logout();
    $this->postJson('/api/sign-in', ['user_name' => $name, 'secret' => 'maple otter candy'])->assertOk();
    $this->actingAs($this->world->as('coordinator'));
    expect(($this->onDesk)('never_signed_in'))->toBe($before);
    $this->world->student('Kai Roig', null, ['email' => 'kai@shoremail.example']);
    $this->world->lookThrough();
    expect(($this->have)('outside_domain'))->toBe(['Kai Roig']);
    // Who adds a mail domain answers for every school.
    $this->world->coordinates($this->world->people['coordinator'], $this->world->otherSchool);
    $settings = $this->getJson("$this->uri/settings")
        ->assertOk()
        ->json();
    $this->postJson("$this->uri/settings", [
        'mail_domains' => ['lanternfield.example', 'shoremail.example'],
        'version' => $settings['version'],
    ])->assertOk();
    expect(($this->have)('outside_domain'))->toBe([]);
});

it('follows the day, without anybody writing anything', function (): void {
    $noor = $this->world->student('Noor Castell', $this->world->section);
    $ends = CarbonImmutable::now()->addDays(3)->format('Y-m-d');
    DB::table('enrollments')
        ->where('person_id', $noor)
        ->update(['ends_on' => $ends]);
    $this->world->lookThrough();
    expect(($this->have)('unplaced'))->not->toContain('Noor Castell');
    $unplaced = fn(): int => app(KeptProblems::class)->standing($this->world->school)['unplaced'][0] ?? 0;
    $before = $unplaced();
    $this->travelTo(CarbonImmutable::now()->addDays(2));
    expect($unplaced())->toBe($before);
    $this->travelTo(CarbonImmutable::now()->addDays(1));
    expect($unplaced())->toBe($before + 1);
});
