<?php

declare(strict_types=1);

// Whoever has left is not among those who are there, and is found where one asks for them.

it('lists and finds who has left when asked, and only then', function (): void {
    readyToUndo($this);
    $basil = $this->world->student('Basil Gone', null, ['number' => '7', 'grade' => '03']);
    $this->world->student('Basil Here', null, ['number' => '8', 'grade' => '03']);
    ($this->change)($basil, ['state' => 'left']);
    $this->world->lookThrough();
    $names = fn(string $query): array => array_column(
        $this->getJson("/api/schools/{$this->world->school}/people?kind=student&$query")
            ->assertOk()
            ->json('people'),
        'name',
    );
    expect($names('q=basil'))
        ->toBe(['Basil Here'])
        ->and($names('q=basil&left=true'))
        ->toBe(['Basil Gone'])
        ->and($names('left=true'))
        ->toBe(['Basil Gone'])
        ->and($names('left=true&grade=03&sort=number'))
        ->toBe(['Basil Gone'])
        ->and($names('left=true&grade=04'))
        ->toBe([])
        ->and($names(''))
        ->not->toContain('Basil Gone');
});
