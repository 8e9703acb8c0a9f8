<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\OneToOne;
use Vantrel\Core\Matching\Subject;

/** @param  array<string, array<string, float>>  $chances row to person to the chance that it is them */
function candidatesOf(array $chances): array
{
    return array_map(
        fn(array $people): array => array_map(
            fn(string $id, float $chance): Candidate => new Candidate(
                new Subject($id, 'Noor', 'Castell'),
                [],
                $chance,
                '',
            ),
            array_map(strval(...), array_keys($people)),
            array_values($people),
        ),
        $chances,
    );
}

/**
 * The highest total of log odds that any way of giving each person to one row reaches, by trying all.
 *
 * @param  array<string, array<string, float>>  $chances
 * @param  array<string, true>  $taken
 */
function bestOfAll(array $chances, array $taken = []): float
{
    if ($chances === []) {
        return 0.0;
    }
    $people = array_shift($chances);
    $best = bestOfAll($chances, $taken);
    foreach ($people as $id => $chance) {
        if (!isset($taken[$id])) {
            $best = max($best, worthOf($chance) + bestOfAll($chances, [...$taken, $id => true]));
        }
    }

    return $best;
}

/** Somebody likely is worth more than nobody, and two are worth more than one who is likelier. */
function worthOf(float $chance): float
{
    return 20 + log($chance / (1 - $chance));
}

it('gives each person to one row, as no other way would do better', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'one to one');
    for ($round = 0; $round < 120; $round++) {
        $chances = [];
        for ($row = 0; $row < 2 + $random->below(4); $row++) {
            $chances["row $row"] = [];
            for ($person = 0; $person < 5; $person++) {
                if ($random->below(5) < 2) {
                    $chances["row $row"]["person $person"] = (1 + $random->below(98)) / 100;
                }
            }
        }
        $given = OneToOne::assign(candidatesOf($chances));
        expect(array_unique($given))->toBe($given);
        $worth = 0.0;
        foreach ($given as $row => $id) {
            $worth += worthOf($chances[$row][$id]);
        }
        expect($worth)->toEqualWithDelta(bestOfAll($chances), 1e-6);
    }
});

it('lets the likelier row have the person both could be', function (): void {
    expect(OneToOne::assign(candidatesOf(['1' => ['kai' => 0.7], '2' => ['kai' => 0.9], '3' => []])))->toBe([
        '2' => 'kai',
    ]);
});

it('takes no two who compete for two others from each other, and leaves strangers alone', function (): void {
    expect(
        OneToOne::assign(
            candidatesOf([
                'a' => ['kai' => 0.99, 'noor' => 0.6],
                'b' => ['kai' => 0.98],
                'c' => ['ada' => 0.2],
                'd' => ['bo' => 1.0, 'cy' => 0.0],
            ]),
        ),
    )->toEqual(['a' => 'noor', 'b' => 'kai', 'c' => 'ada', 'd' => 'bo']);
});

it('settles a crowd likeliest first', function (): void {
    $chances = [];
    for ($row = 0; $row < 61; $row++) {
        $chances["r$row"] = ['shared' => 0.5 + $row / 1000, "own $row" => 0.3];
    }
    $given = OneToOne::assign(candidatesOf($chances));
    expect($given)->toHaveCount(61)->and($given['r60'])->toBe('shared')->and($given['r59'])->toBe('own 59');
});
