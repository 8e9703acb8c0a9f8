<?php

declare(strict_types=1);

use Vantrel\Core\Records\Section;
use Vantrel\Core\Sections\Periods;

it('knows two hours for one as they are written', function (?string $a, ?string $b, bool $same): void {
    expect(Periods::same($a, $b))->toBe($same)->and(Periods::same($b, $a))->toBe($same);
})->with([
    ['3', '3', true],
    ['3', ' 3 ', true],
    ['3a', '3A', true],
    ['3', '4', false],
    ['3', '30', false],
    ['3', '03', false],
    [null, null, false],
    ['', '', false],
    [' ', ' ', false],
    ['3', null, false],
    ['É', 'é', true],
    ['É', 'E', false],
]);

it('lets sections clash that are open in the same year at the same hour', function (array $other, bool $clash): void {
    $section = fn(array $more): Section => new Section((string) ($more['id'] ?? 'a'), 1, [
        'school_year_id' => 'year',
        'period' => '3',
        'state' => 'open',
        ...$more,
    ]);
    expect(Periods::clash($section([]), $section(['id' => 'b', ...$other])))
        ->toBe($clash)
        ->and(Periods::clash($section(['id' => 'b', ...$other]), $section([])))
        ->toBe($clash);
})->with([
    'the same hour' => [[], true],
    'another hour' => [['period' => '4'], false],
    'no hour' => [['period' => null], false],
    'another year' => [['school_year_id' => 'next'], false],
    'archived' => [['state' => 'archived'], false],
    'the same section' => [['id' => 'a'], false],
]);
