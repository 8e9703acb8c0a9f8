<?php

declare(strict_types=1);

use Tests\Support\Histories\Histories;
use Tests\Support\Histories\Invariants;
use Tests\Support\Histories\MemoryHouse;
use Tests\Support\Histories\Player;
use Tests\Support\Histories\Run;
use Tests\Support\Histories\Step;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;

/**
 * @param  string  $steps as a history is printed
 * @return list<string> what came of each
 */
function playSteps(string $steps, ?MemoryHouse $house = null): array
{
    $beginning = Histories::snapshotOf(Histories::beginning());
    $player = new Player($house ?? new MemoryHouse($beginning, $beginning->schools), 'memory');

    return array_map(fn(string $s): string => $player->play(Step::parse($s)), explode(' ', $steps));
}

it('keeps its word over thousands of random histories', function (): void {
    $run = new Run();
    // bin/mutate runs this once for every mutation, with fewer of them.
    $histories = (int) (getenv('VANTREL_HISTORIES') ?: 2_000);
    for ($seed = 1; $seed <= $histories; $seed++) {
        $steps = Histories::random($seed, 6 + ($seed % 12), 3, $seed % 3 !== 0);
        $failed = $run->play($steps);
        if ($failed !== '') {
            $smallest = Histories::shrink($steps, fn(array $s): bool => (new Run())->play($s) !== '');
            expect(implode(' ', array_map(strval(...), $smallest)) . ': ' . (new Run())->play($smallest))->toBe('');
        }
    }
    expect($run->turnedBack)->toBeGreaterThan(0);
    if ($histories < 2_000) {
        return;
    }
    // It would say little if hardly anything had been done.
    expect($run->turnedBack)
        ->toBeGreaterThan(1_000)
        ->and($run->outcomes['undo']['done'])
        ->toBeGreaterThan(1_000)
        ->and($run->outcomes['undo']['kept'])
        ->toBeGreaterThan(100)
        ->and($run->outcomes['redo']['done'])
        ->toBeGreaterThan(200)
        ->and($run->outcomes['merge']['done'])
        ->toBeGreaterThan(1_000)
        ->and($run->outcomes['apply']['stale'])
        ->toBeGreaterThan(100);
});

it('leaves out of a failing history whatever is not needed for the failure', function (): void {
    $steps = Histories::random(7, 40);
    $kinds = fn(array $s): array => array_map(fn(Step $step): string => $step->kind, $s);
    $fails = fn(array $s): bool => in_array('turn', $kinds($s), true) && in_array('merge', $kinds($s), true);
    expect($fails($steps))->toBeTrue()->and(Histories::shrink($steps, $fails))->toHaveCount(2);
});

// Histories that once failed, the smallest that did.

it('lets a code stay closed whose section has been archived since', function (): void {
    expect(
        playSteps(
            '1:list(590,760,759) 2:close-code(334,590,48) 0:undo(452,663,342) 1:turn(869,463,409) 1:undo(7,106,958)',
        ),
    )->toBe(['done', 'done', 'done', 'done', 'kept']);
});

it('gives no number back that somebody else has by now', function (): void {
    expect(
        (new Run())->play(
            array_map(Step::parse(...), explode(' ', '2:merge(954,70,741) 1:number(298,829,907) 2:undo(999,320,915)')),
        ),
    )->toBe('');
});

it('opens no second code and no second enrollment', function (string $steps): void {
    expect((new Run())->play(array_map(Step::parse(...), explode(' ', $steps))))->toBe('');
})->with([
    '1:open-code(506,512,423) 1:join(542,560,188) 2:undo(455,103,178)',
    '0:move(973,369,716) 0:list(477,545,581) 2:undo(603,917,473)',
]);

it('takes merges into one account back from the last to the first', function (): void {
    expect(playSteps('1:merge(959,633,450) 0:number(565,276,298) 0:merge(383,91,274) 1:undo(378,926,853)'))->toBe([
        'done',
        'done',
        'done',
        'refused',
    ]);
});

// The invariants would notice.

it('says of a broken school what is broken', function (Closure $break, string $said): void {
    $rows = Histories::beginning();
    $break($rows);
    expect(Invariants::broken(Histories::snapshotOf($rows)))->toContain($said);
})->with([
    [
        function (array &$r): void {
            $r['school_years']['other'] = [...reset($r['school_years']), 'name' => 'other'];
        },
        '2 years are current',
    ],
    [
        function (array &$r): void {
            $r['join_codes']['other'] = reset($r['join_codes']);
        },
        'open code of a section twice',
    ],
    [
        function (array &$r): void {
            $r['sections'][array_key_first($r['sections'])]['state'] = 'archived';
        },
        'join_codes: one works in an archived section',
    ],
    [
        function (array &$r): void {
            $r['sign_ins'] = [];
        },
        'an active student has no user name',
    ],
    [
        function (array &$r): void {
            $student = reset($r['sign_ins'])['person_id'];
            $r['people'][$student] = [
                ...$r['people'][$student],
                'state' => 'merged',
                'merged_into' => array_key_last($r['people']),
            ];
        },
        'a user name signs in to a merged account',
    ],
    [
        function (array &$r): void {
            $r['people'][array_key_last($r['people'])]['merged_into'] = array_key_first($r['people']);
        },
        'an account is merged into nobody',
    ],
    [
        function (array &$r): void {
            $r['enrollments'][array_key_first($r['enrollments'])]['section_id'] = 'nowhere';
        },
        'enrollments.section_id points at nothing',
    ],
]);

it('counts as loose what would be left with an account that goes', function (): void {
    $beginning = Histories::snapshotOf(Histories::beginning());
    $student = array_values(
        array_filter($beginning->all(Person::class), fn(Record $p): bool => $p->field('kind') === 'student'),
    )[0];
    $house = new MemoryHouse($beginning, $beginning->schools);
    $others = array_values(
        array_filter(
            $beginning->all(Person::class),
            fn(Record $p): bool => $p->field('kind') === 'student' && $p->id !== $student->id,
        ),
    );
    $plan = new Vantrel\Core\Plan\Plan('Half', 'Half a merge.', [
        new Vantrel\Core\Plan\Change(
            Entity::Person,
            $student->id,
            0,
            ['state' => 'active', 'merged_into' => null],
            ['state' => 'merged', 'merged_into' => $others[0]->id],
            'half',
        ),
    ]);
    $loose = Vantrel\Core\Plan\LooseEnds::of($plan, $house);
    expect(array_map(fn(string $l): string => explode(' ', $l)[0], $loose))
        ->toContain('sign_ins')
        ->toContain('enrollments');
    expect(fn() => $house->apply($plan, Vantrel\Core\Plan\Action::Merge))
        ->toThrow(Vantrel\Core\Plan\StalePlan::class)
        ->and($house->snapshot()->find(Person::class, $student->id)?->values['state'])
        ->toBe('active');
});
