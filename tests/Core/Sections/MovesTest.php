<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Sections\Move;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;

$ids = new Ids('01K3CNQ0000000000000000000');
$heron = place('h', '3 Heron');
$plover = place('p', '3 Plover', ['seats' => 2, 'period' => '2']);
$art = place('a', 'Art', ['period' => '2', 'kind' => 'class']);

it('moves as of a day: out of one and into the other on the same day, and the past stays', function () use (
    $ids,
    $heron,
    $plover,
): void {
    $plan = Moves::plan(
        new Move(MoveKind::Move, [mover('uma')], $heron, $plover, '2026-10-05'),
        ['uma' => [in('e1', 'uma', 'h')]],
        ['h' => $heron, 'p' => $plover],
        0,
        $ids,
    );
    expect(changeWords($plan))
        ->toBe(['out e1 2026-10-05', 'in p 2026-10-05'])
        ->and($plan->sentence)
        ->toContain('1 student moves from 3 Heron to 3 Plover');
});

it('moves into another homeroom, out of whichever each was in, and stays in the classes', function () use (
    $ids,
    $heron,
    $plover,
    $art,
): void {
    $tern = place('t', '3 Tern');
    $gone = place('g', '2 Gone', ['state' => 'archived']);
    $plan = Moves::plan(
        new Move(
            MoveKind::Instead,
            [mover('uma'), mover('kai'), mover('ada'), mover('noor')],
            null,
            $plover,
            '2026-10-05',
        ),
        [
            'uma' => [in('e1', 'uma', 'h'), in('e2', 'uma', 'a')],
            'kai' => [in('e3', 'kai', 'h'), in('e4', 'kai', 't'), in('e5', 'kai', 'p')],
            'ada' => [in('e6', 'ada', 'p')],
            'noor' => [in('e7', 'noor', 'g')],
        ],
        ['h' => $heron, 'p' => $plover, 'a' => $art, 't' => $tern, 'g' => $gone],
        0,
        $ids,
    );
    expect(changeWords($plan))
        ->toBe(['out e1 2026-10-05', 'in p 2026-10-05', 'out e3 2026-10-05', 'out e4 2026-10-05', 'in p 2026-10-05'])
        ->and(array_map(fn($row): string => $row->why, $plan->rows))
        ->toBe(['period 2 clashes with Art', '', 'in 3 Plover already', ''])
        ->and($plan->rows[1]->cells['Section']->before)
        ->toBe('3 Heron and 3 Tern')
        ->and($plan->sentence)
        ->toContain('3 students come into 3 Plover');
});

it('leaves those as they are who are not there, or are there already', function () use ($ids, $heron, $plover): void {
    $own = ['uma' => [in('e1', 'uma', 'h', '2026-08-24', '2026-09-01')], 'ada' => [in('e2', 'ada', 'p')], 'left' => []];
    expect(
        Moves::plan(
            new Move(MoveKind::Move, [mover('uma')], $heron, $plover, '2026-10-05'),
            $own,
            [],
            0,
            $ids,
        )->isEmpty(),
    )
        ->toBeTrue()
        ->and(
            Moves::plan(new Move(MoveKind::Also, [mover('ada')], null, $plover, '2026-10-05'), $own, [], 0, $ids)
                ->rows[0]->why,
        )
        ->toBe('in 3 Plover already')
        ->and(
            Moves::plan(
                new Move(MoveKind::Also, [mover('left', 'left')], null, $plover, '2026-10-05'),
                $own,
                [],
                0,
                $ids,
            )->isEmpty(),
        )
        ->toBeTrue();
});

it('moves one who is in both out of the one and not in twice', function () use ($ids, $heron, $plover): void {
    $plan = Moves::plan(
        new Move(MoveKind::Move, [mover('uma')], $heron, $plover, '2026-10-05'),
        ['uma' => [in('e1', 'uma', 'h'), in('e2', 'uma', 'p')]],
        [],
        0,
        $ids,
    );
    expect(changeWords($plan))->toBe(['out e1 2026-10-05']);
});

it('warns of clashing periods and of too few seats', function () use ($ids, $plover, $art): void {
    $plan = Moves::plan(
        new Move(MoveKind::Also, [mover('uma'), mover('ada')], null, $plover, '2026-10-05'),
        ['uma' => [in('e1', 'uma', 'a')]],
        ['a' => $art, 'p' => $plover],
        1,
        $ids,
    );
    expect($plan->warnings)->toBe([
        'Uma Rao: period 2 clashes with Art',
        '3 Plover would have 3 students for 2 seats.',
    ]);
    $swap = Moves::plan(
        new Move(MoveKind::Move, [mover('uma')], $art, $plover, '2026-10-05'),
        ['uma' => [in('e1', 'uma', 'a')]],
        ['a' => $art, 'p' => $plover],
        0,
        $ids,
    );
    expect($swap->warnings)->toBe([]);
});

it('never ends an enrollment before it begins', function () use ($ids, $heron): void {
    $plan = Moves::plan(
        new Move(MoveKind::Remove, [mover('uma')], $heron, null, '2026-10-05'),
        ['uma' => [in('e1', 'uma', 'h', '2026-10-10')]],
        [],
        0,
        $ids,
    );
    expect(changeWords($plan))->toBe(['out e1 2026-10-10']);
});

it('refuses archived sections, the same section and nobody', function () use ($ids, $heron): void {
    $shut = place('x', 'Old', ['state' => 'archived']);
    expect(fn() => Moves::plan(new Move(MoveKind::Move, [mover('uma')], $heron, $shut, '2026-10-05'), [], [], 0, $ids))
        ->toThrow(Refusal::class, 'archived')
        ->and(
            fn() => Moves::plan(new Move(MoveKind::Remove, [mover('uma')], $shut, null, '2026-10-05'), [], [], 0, $ids),
        )
        ->toThrow(Refusal::class, 'archived')
        ->and(
            fn() => Moves::plan(
                new Move(MoveKind::Move, [mover('uma')], $heron, $heron, '2026-10-05'),
                [],
                [],
                0,
                $ids,
            ),
        )
        ->toThrow(Refusal::class)
        ->and(
            fn() => Moves::plan(new Move(MoveKind::Move, [mover('uma')], $heron, null, '2026-10-05'), [], [], 0, $ids),
        )
        ->toThrow(Refusal::class, 'come into')
        ->and(fn() => Moves::plan(new Move(MoveKind::Remove, [], $heron, null, '2026-10-05'), [], [], 0, $ids))
        ->toThrow(Refusal::class, 'at least one');
});

it('is empty when made again, and undone by its images, for moves drawn at random', function () use (
    $heron,
    $art,
): void {
    $random = new KeyedStream(str_repeat('k', 32), 'moves');
    $sections = ['h' => $heron, 'p' => place('p', '3 Plover', ['period' => '2']), 'a' => $art];
    for ($round = 0; $round < 60; $round++) {
        $people = $rows = [];
        for ($i = 0; $i < 1 + $random->below(6); $i++) {
            $people[] = mover("s$i");
            foreach (array_keys($sections) as $at) {
                if ($random->below(2) === 0) {
                    $rows["e$i$at"] = in(
                        "e$i$at",
                        "s$i",
                        $at,
                        '2026-08-24',
                        $random->below(3) === 0 ? '2026-09-0' . (1 + $random->below(9)) : null,
                    );
                }
            }
        }
        $snapshot = new Snapshot([Entity::Enrollment->value => $rows]);
        $kind = MoveKind::cases()[$random->below(4)];
        $make = fn(Snapshot $s, Ids $ids): Plan => Moves::plan(
            new Move(
                $kind,
                $people,
                $kind === MoveKind::Also ? null : $heron,
                $kind === MoveKind::Remove ? null : $sections['p'],
                '2026-09-05',
            ),
            $s->by(Enrollment::class, 'person_id'),
            $sections,
            0,
            $ids,
        );
        $plan = $make($snapshot, new Ids('01K3CNQ0000000000000000000'));
        $after = $snapshot->with($plan);
        expect($make($after, new Ids('01K3CNQ0000000000000000001'))->isEmpty())
            ->toBeTrue()
            ->and($after->without($plan)->all(Enrollment::class))
            ->toEqual($snapshot->all(Enrollment::class));
        foreach ($people as $person) {
            foreach (array_keys($sections) as $at) {
                $held = array_filter(
                    $after->by(Enrollment::class, 'person_id')[$person->id] ?? [],
                    fn(Record $e): bool => $e->field('section_id') === $at &&
                        $e->field('begins_on') <= '2026-09-05' &&
                        ($e->field('ends_on') === null || $e->field('ends_on') > '2026-09-05'),
                );
                expect(count($held))->toBeLessThanOrEqual(1);
            }
        }
    }
});
