<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Beginnings;
use Vantrel\Core\Matching\Weights;
use Vantrel\Core\Names\PersonName;

it('looks by the first letter of each form of a given name, and three letters of each family name', function (
    string $given,
    string $family,
    array $first,
    array $last,
): void {
    $found = Beginnings::of(new PersonName($given, $family)) ?? throw new LogicException('Nothing to look for.');
    $letters = $found->given;
    sort($letters);
    expect($letters)->toBe($first)->and($found->family)->toBe($last);
})->with([
    'one name' => ['Noor', 'Castell', ['n'], ['cas']],
    'short forms begin otherwise' => ['William', 'Ek', ['b', 'g', 'l', 'w'], ['ek']],
    'two family names, each for itself' => ['Noor', 'Castell Roig', ['n'], ['cas', 'roi']],
    'two that begin alike, once' => ['Noor', 'Castell Castro', ['n'], ['cas']],
    'accents and capitals' => ['Noor', 'ÖZTÜRK', ['n'], ['ozt']],
    'what romanising writes in two letters' => ['Noor', 'Shevchuk', ['n'], ['s']],
    'and the same after another family name' => ['Noor', 'Ek Chekhov', ['n'], ['ek', 'c']],
    'another script, of which only the first letter is sure' => ['Noor', 'Шевчук', ['n'], ['s']],
    'the last letter of the Latin ones is Latin' => ['Noor', 'Tanaɏk', ['n'], ['tan']],
]);

it('has nothing to look for where a part of the name is missing', function (): void {
    expect(Beginnings::of(new PersonName('', 'Castell')))
        ->toBeNull()
        ->and(Beginnings::of(new PersonName('Noor', '')))
        ->toBeNull()
        ->and(Beginnings::of(new PersonName('Noor', '–')))
        ->toBeNull();
});

it('shares a hundred among the levels of a field: one of them is the case', function (): void {
    $weights = Weights::published();
    $u = fn(string $field, string $level): float => $weights->u($field, $level);
    foreach (Weights::levels() as $field => $levels) {
        if ($field === 'names swapped') {
            continue;
        }
        // Chances that are too small to say are left out of the published ones: five in a hundred at most.
        $groups = array_filter([
            // An address that nobody has confirmed stands in for one that is: the same case.
            array_filter($levels, fn(string $l): bool => !preg_match('/elsewhere|claimed/', $l)),
            array_filter($levels, fn(string $l): bool => str_contains($l, 'elsewhere')),
        ]);
        foreach ($groups as $group) {
            $m = array_sum(array_map(fn(string $l): float => $weights->m($field, $l), $group));
            $others = array_sum(array_map(fn(string $l): float => $u($field, $l), $group));
            $s = array_sum(
                array_map(fn(string $l): float => 2 ** $weights->sibling($field, $l) * $u($field, $l), $group),
            );
            expect($m)
                ->toEqualWithDelta(1.0, 0.05, "m of $field")
                ->and($others)
                ->toEqualWithDelta(1.0, 0.05, "u of $field")
                ->and($s)
                ->toEqualWithDelta(1.0, 0.05, "s of $field");
        }
    }
});
