<?php

declare(strict_types=1);

use Vantrel\Core\Intake\Leavers;

it('asks for the words once more leave than is usual: a tenth, or twenty people, whichever is more', function (
    int $inScope,
    int $wire,
): void {
    expect(Leavers::tripWire($inScope))->toBe($wire);
})->with([[0, 20], [50, 20], [200, 20], [201, 20], [1_000, 100], [1_342, 134]]);
