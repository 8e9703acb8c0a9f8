<?php

declare(strict_types=1);

use Vantrel\Core\Calendar\DayWords;
use Vantrel\Core\Mailroom\WorkLine;
use Vantrel\Core\Plan\Refusal;

// A Wednesday.
const WEDNESDAY = '2026-11-25';

it('reads work in one line', function (string $line, string $title, string $day): void {
    $wish = WorkLine::read($line, WEDNESDAY);
    expect([$wish->text->title, $wish->day])->toBe([$title, $day]);
})->with([
    ['Reading log, fri', 'Reading log', '2026-11-27'],
    ['Reading log due Friday', 'Reading log', '2026-11-27'],
    ['Reading log is due on Monday', 'Reading log', '2026-11-30'],
    ['Map of the harbor 4 dec', 'Map of the harbor', '2026-12-04'],
    ['Map of the harbor by the 4th of December', 'Map of the harbor', '2026-12-04'],
    ['Trip form: 2026-12-04', 'Trip form', '2026-12-04'],
    ['Trip form – tomorrow', 'Trip form', '2026-11-26'],
    ['Chapter 4 in 2 weeks', 'Chapter 4', '2026-12-09'],
    // A day that is over this year is next year’s.
    ['Boat model until 3 jan', 'Boat model', '2027-01-03'],
    ['Bring shells, today', 'Bring shells', '2026-11-25'],
    ['Essay on the tides, 29 feb', 'Essay on the tides', '2028-02-29'],
]);

it('asks for the day, or for what it is', function (string $line, string $said): void {
    expect(fn() => WorkLine::read($line, WEDNESDAY))->toThrow(Refusal::class, $said);
})->with([
    ['Reading log', 'is due, such as'],
    ['fri', 'Say what it is'],
    ['', 'is due, such as'],
    ['Map 31 feb', 'is due'],
]);

it('finds the next day from today, where the box finds the last', function (): void {
    foreach (['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun', '1 sep', '25 november'] as $said) {
        expect(DayWords::coming($said, WEDNESDAY))
            ->toBeGreaterThanOrEqual(WEDNESDAY)
            ->and(DayWords::read($said, WEDNESDAY))
            ->toBeLessThanOrEqual(WEDNESDAY);
    }
    expect(DayWords::coming('wed', WEDNESDAY))
        ->toBe(WEDNESDAY)
        ->and(DayWords::coming('next wed', WEDNESDAY))
        ->toBe('2026-12-02')
        ->and(DayWords::coming('next thu', WEDNESDAY))
        ->toBe('2026-11-26')
        ->and(DayWords::coming('yesterday', WEDNESDAY))
        ->toBeNull();
});
