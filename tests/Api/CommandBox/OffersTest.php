<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;

beforeEach(function (): void {
    readyForTheLedger($this);
    $this->said = fn(string $q, string $as = 'coordinator'): array => $this->actingAs($this->world->as($as))
        ->getJson("/api/schools/{$this->world->school}/command?" . http_build_query(['q' => $q]))
        ->assertOk()
        ->json('offers');
    DB::table('people')
        ->where('id', $this->world->people['student'])
        ->update(['number' => '020417']);
    $this->world->lookThrough();
});

it('leads to the cards, the code, the archive and the roster of a day', function (): void {
    $section = $this->world->section;
    $cards = ($this->said)('cards 3 heron');
    expect($cards)
        ->toHaveCount(1)
        ->and($cards[0])
        ->toMatchArray(['label' => 'Cards for 3 Heron', 'path' => "print-room?sections=$section", 'why' => ''])
        ->and($cards[0]['what'])
        ->toMatch('/^Opens the print for \d+ students?\.$/')
        ->and(($this->said)('code heron')[0])
        ->toMatchArray(['wall' => $section, 'path' => null])
        ->and(($this->said)('archive 3 HERON')[0]['path'])
        ->toBe("sections/$section?do=archive")
        ->and(($this->said)('3 heron as of 2026-09-01')[0])
        ->toMatchArray(['label' => '3 Heron as of 1 September 2026', 'path' => "sections/$section?as_of=2026-09-01"])
        // A number alone is both.
        ->and(array_column(($this->said)('cards 3'), 'label'))
        ->toBe(['Cards for 3 Heron', 'Cards for 3 Plover']);
});

it('says why something cannot be done, and how it would be said', function (string $q, string $why): void {
    $offers = ($this->said)($q);
    expect($offers)
        ->toHaveCount(1)
        ->and($offers[0]['why'])
        ->toContain($why)
        ->and([$offers[0]['path'], $offers[0]['wall'], $offers[0]['entry'], $offers[0]['placing']])
        ->toBe([null, null, null, null]);
})->with([
    ['cards', 'Say which section: cards 7B.'],
    ['cards 9Z', 'No section is called “9Z”.'],
    ['3 heron as of', 'Name the day'],
    ['3 heron as of 1/2', 'Name the day'],
    ['as of 1 sep', 'Say which section'],
    ['move 020417', 'Say whom, and into which section'],
    ['move 999999 to 3 Plover', 'No student is called “999999”'],
    ['move 020417 to 9Z', 'No section is called “9Z”.'],
    ['move 020417 from 9Z to 3 Plover', 'No section is called “9Z”.'],
    ['place 020417 in 3 Heron', 'In 3 Heron already.'],
    ['merge', 'Nobody here seems to have two accounts.'],
    ['merge 020417', 'No other account looks like'],
    ['merge 020417 and 020417', 'No other student is called'],
    ['undo last', 'There is nothing that can be undone.'],
]);

it('moves a student as it was said, once it is sent', function (): void {
    $offer = ($this->said)('move 020417 to 3 Plover')[0];
    expect($offer['label'])
        ->toBe('Move Wilhelmina Seabright from 3 Heron to 3 Plover')
        ->and($offer['what'])
        ->not->toBe('')
        ->and($offer['placing']['from'])
        ->toBe($this->world->section);
    $placing = $offer['placing'];
    $before = World::checksum();
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/sections/{$placing['from']}/place", [
            'kind' => 'move',
            'people' => [$placing['person']],
            ...array_intersect_key($placing, array_flip(['to', 'day', 'seed', 'fingerprint'])),
        ])
        ->assertOk();
    expect(World::checksum())
        ->not->toBe($before)
        ->and(($this->said)('move 020417 to 3 Plover')[0]['why'])
        ->toBe('In 3 Plover already.');
    $undo = ($this->said)('undo last')[0];
    expect($undo['label'])
        ->toStartWith('Undo: ')
        ->and($undo['what'])
        ->toContain('by Ines Halloran')
        ->and($undo['entry'])
        ->toBe(DB::table('ledger_entries')->where('action', 'place')->value('id'));
});

it('asks which class somebody leaves who is in several', function (): void {
    $classes = array_map(
        fn(string $name): string => $this->world->section($this->world->school, $name, 'class', '03'),
        ['Science 3A', 'Science 3B', 'Music'],
    );
    foreach ([$classes[0], $classes[2]] as $class) {
        $this->world->enroll($class, $this->world->people['student'], 'student');
    }
    $offers = ($this->said)('move 020417 to science 3b');
    expect($offers[0]['why'])
        ->toBe('Say which section they leave, of Music and Science 3A: move 020417 from Music to Science 3B.')
        ->and(($this->said)('move 020417 from science 3a to science 3b')[0]['placing']['from'])
        ->toBe($classes[0])
        ->and(($this->said)('place 020417 in science 3b')[0]['placing']['from'])
        ->toBeNull();
});

it('offers teachers their own sections, and nothing that is the coordinators’', function (): void {
    expect(($this->said)('code heron', 'lead')[0]['wall'])
        ->toBe($this->world->section)
        ->and(($this->said)('cards plover', 'lead')[0]['why'])
        ->toBe('No section is called “plover”.')
        ->and(($this->said)('archive heron', 'assistant')[0]['why'])
        ->toBe('You may not do that there.');
    foreach (['move 020417 to 3 Plover', 'merge', 'undo last', 'place 020417 in 3 Plover'] as $q) {
        expect(($this->said)($q, 'lead'))
            ->toHaveCount(1)
            ->and(($this->said)($q, 'lead')[0]['why'])
            ->toBe('That is for a coordinator of the school to do.');
    }
});

it('holds two accounts against each other by what is typed', function (): void {
    $twin = $this->world->student('Wilhelmina Seabridge');
    DB::table('people')
        ->where('id', $twin)
        ->update(['number' => '020418', 'state' => 'active']);
    $this->world->lookThrough();
    $ids = [$this->world->people['student'], $twin];
    $offer = ($this->said)('merge 020417 and 020418')[0];
    expect($offer['path'])
        ->toBe("look-alikes/$ids[0]-$ids[1]")
        ->and($offer['label'])
        ->toContain('Seabright (020417)')
        ->toContain('Seabridge (020418)');
});

it('offers nothing for a name, and undoes nothing that cannot be undone', function (): void {
    expect(($this->said)('Wilhelmina'))->toBe([]);
    $this->ledger->apply(
        somePlan($this->world),
        $this->world->school,
        $this->world->as('coordinator'),
        Action::Password,
    );
    expect(($this->said)('undo')[0]['why'])->toBe('There is nothing that can be undone.');
});
