<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\SendTime;
use Vantrel\Core\Plan\Refusal;

const NOON_IN_NEW_YORK = '2026-11-25 17:00:00';

it('is now, or the time that is meant by the school’s clock', function (?string $local, string $instant): void {
    expect(SendTime::of($local, 'America/New_York', NOON_IN_NEW_YORK))->toBe($instant);
})->with([
    [null, '2026-11-25 17:00:00'],
    ['2026-11-25T12:00', '2026-11-25 17:00:00'],
    ['2026-11-26T07:30', '2026-11-26 12:30:00'],
    // A moment ago, while the letter was looked at.
    ['2026-11-25T11:00', '2026-11-25 17:00:00'],
    // The clock has leapt over it: at the same distance behind the leap.
    ['2027-03-14T02:30', '2027-03-14 07:30:00'],
    ['2027-11-25T12:00', '2027-11-25 17:00:00'],
]);

it('is no time that is over, nor one of another year than was meant', function (string $local, string $said): void {
    expect(fn() => SendTime::of($local, 'America/New_York', NOON_IN_NEW_YORK))->toThrow(
        fn(Refusal $e) => expect([$e->field, str_contains($e->getMessage(), $said)])->toBe(['at', true]),
    );
})->with([
    ['2026-11-25T10:59', 'is over'],
    ['2026-11-24T12:00', 'is over'],
    ['0026-12-01T08:00', 'is over'],
    ['2027-11-27T12:01', 'a year away'],
    ['2206-12-01T08:00', 'a year away'],
]);
