<?php

declare(strict_types=1);

use Vantrel\Core\Desk\PuttingOff;
use Vantrel\Core\Plan\Refusal;

it('takes a day to come within a year, and a reason without its spaces', function (string $until): void {
    $off = new PuttingOff($until, '  On Monday.  ', '2026-11-26');
    expect([$off->until, $off->reason])->toBe([$until, 'On Monday.']);
})->with(['2026-11-27', '2027-11-27']);

it('refuses a day that has come or is too far off, and no reason', function (
    string $until,
    string $reason,
    string $field,
): void {
    try {
        new PuttingOff($until, $reason, '2026-11-26');
        $refused = null;
    } catch (Refusal $e) {
        $refused = $e->field;
    }
    expect($refused)->toBe($field);
})->with([
    ['2026-11-26', 'So.', 'until'],
    ['2026-11-25', 'So.', 'until'],
    ['2027-11-28', 'So.', 'until'],
    ['2026-11-27', " \t ", 'reason'],
]);
