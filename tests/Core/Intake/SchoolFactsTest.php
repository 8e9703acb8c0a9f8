<?php

declare(strict_types=1);

use Vantrel\Core\Intake\SchoolFacts;

it('knows how many figures a whole number has, where numbers say so themselves', function (
    array $widths,
    int $width,
): void {
    expect(SchoolFacts::usualWidth($widths))->toBe($width);
})->with([
    'all of six, some with zeros' => [[[6, 400, 30]], 6],
    'nearly all' => [[[4, 5, 0], [6, 95, 1]], 6],
    'too many of another width' => [[[4, 6, 0], [6, 94, 1]], 0],
    'none begins with 0' => [[[6, 400, 0]], 0],
    'too few to tell' => [[[6, 19, 19]], 0],
    'just enough' => [[[6, 20, 1]], 6],
    'none' => [[], 0],
]);
