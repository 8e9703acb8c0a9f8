<?php

declare(strict_types=1);

use Vantrel\Core\Calendar\Span;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Section;

$row = new Section('a', 3, ['name' => 'Old', 'grade' => '03']);

it('drops updates that change nothing and joins those of one record', function () use ($row): void {
    $plan = new PlanBuilder();
    $plan->update($row, ['name' => 'Old'], 'nothing');
    expect($plan->build('', '')->isEmpty())->toBeTrue();
    $plan->update($row, ['name' => 'New'], 'first');
    $plan->update($row, ['grade' => '04'], 'second');
    $changes = $plan->build('', '')->changes;
    expect($changes)
        ->toHaveCount(1)
        ->and($changes[0]->after)
        ->toBe(['name' => 'New', 'grade' => '04'])
        ->and($changes[0]->before)
        ->toBe(['name' => 'Old', 'grade' => '03'])
        ->and($changes[0]->version)
        ->toBe(3);
    $plan->update($row, ['name' => 'Old', 'grade' => '03'], 'back');
    expect($plan->build('', '')->isEmpty())->toBeTrue();
});

it('folds an update of a record it inserts into the insert, and inserts none twice', function (): void {
    $plan = new PlanBuilder();
    $plan->insert(Entity::Section, 'n', ['name' => 'A', 'grade' => null], 'made');
    $plan->update(new Section('n', 1, []), ['grade' => '03'], 'graded');
    expect($plan->build('', '')->changes[0]->after)
        ->toBe(['name' => 'A', 'grade' => '03'])
        ->and(fn() => $plan->insert(Entity::Section, 'n', [], 'again'))
        ->toThrow(LogicException::class);
});

it('refuses to apply a plan made from another state', function () use ($row): void {
    $plan = new PlanBuilder();
    $plan->update($row, ['name' => 'New'], '');
    (new Snapshot(['sections' => ['a' => new Section('a', 4, $row->values)]]))->with($plan->build('', ''));
})->throws(StalePlan::class);

it('has another fingerprint as soon as anything it does differs', function () use ($row): void {
    $make = function (string $name) use ($row): string {
        $plan = new PlanBuilder();
        $plan->update($row, ['name' => $name], 'why');

        return $plan->build('title', 'sentence')->fingerprint();
    };
    expect($make('A'))->toBe($make('A'))->not->toBe($make('B'));
});

it('makes well-formed ULIDs that depend on seed and parts', function (): void {
    $ids = new Ids('01K3CNQ0000000000000000000');
    expect($ids->for('a', 'b'))
        ->toMatch('/^01K3CNQ000[0-9A-HJKMNP-TV-Z]{16}$/')
        ->toBe($ids->for('a', 'b'))
        ->not->toBe($ids->for('a', 'c'))
        ->not->toBe($ids->for('ab'));
});

it('knows which records every column points at, and only earlier kinds', function (): void {
    $order = array_flip(array_map(fn(Entity $e): string => $e->value, Entity::cases()));
    foreach (Entity::cases() as $entity) {
        foreach ($entity->references() as $parent) {
            expect($order[$parent->value])->toBeLessThanOrEqual($order[$entity->value]);
        }
    }
});

it('counts days half open', function (): void {
    $span = new Span('2026-08-24', '2026-10-01');
    expect($span->holds('2026-08-24'))
        ->toBeTrue()
        ->and($span->holds('2026-09-30'))
        ->toBeTrue()
        ->and($span->holds('2026-10-01'))
        ->toBeFalse()
        ->and((new Span('2026-08-24', null))->holds('2099-01-01'))
        ->toBeTrue()
        ->and((new Span('2026-08-24', '2026-08-24'))->holds('2026-08-24'))
        ->toBeFalse()
        ->and($span->touches(new Span('2026-10-01', null)))
        ->toBeTrue()
        ->and($span->touches(new Span('2026-10-02', null)))
        ->toBeFalse()
        ->and($span->united(new Span('2026-08-20', null)))
        ->toEqual(new Span('2026-08-20', null))
        ->and(Span::after('2028-02-28'))
        ->toBe('2028-02-29')
        ->and(Span::after('2026-12-31'))
        ->toBe('2027-01-01')
        ->and(Span::last('2028-03-01'))
        ->toBe('2028-02-29');
});

it('puts counts into words', function (): void {
    expect(Words::count(1, 'row waits', 'rows wait'))
        ->toBe('1 row waits')
        ->and(Words::count(1240, 'student'))
        ->toBe('1,240 students')
        ->and(Words::join(['a']))
        ->toBe('a')
        ->and(Words::join(['a', 'b', 'c']))
        ->toBe('a, b and c')
        ->and(Words::some(['a', 'b', 'c', 'd', 'e']))
        ->toBe('a, b, c and 2 more');
});

it('tells when a seed was made, by the time part of a ULID', function (): void {
    // The example of the ULID specification's readme, ulid(1469918176385) = 01ARYZ6S41TSV4RRFFQ69G5FAV; from memory.
    expect((new Ids('01ARYZ6S41TSV4RRFFQ69G5FAV'))->instant())
        ->toBe('2016-07-30 22:36:16')
        ->and((new Ids('00000000000000000000000000'))->instant())
        ->toBe('1970-01-01 00:00:00');
});

it('takes a seed for a day, and none from the time to come', function (string $now, bool $fresh): void {
    expect((new Ids('01ARYZ6S41TSV4RRFFQ69G5FAV'))->isFresh($now))->toBe($fresh);
})->with([
    'at once' => ['2016-07-30 22:36:16', true],
    'a day later' => ['2016-07-31 22:36:16', true],
    'a second more' => ['2016-07-31 22:36:17', false],
    'on a server that is behind' => ['2016-07-30 22:31:16', true],
    'before it was made' => ['2016-07-30 22:31:15', false],
]);

it('reads no time from what was not a seed of ours', function (): void {
    expect((new Ids('ZZZZZZZZZZZZZZZZZZZZZZZZZZ'))->isFresh('2026-11-23 10:00:00'))->toBeFalse();
});
