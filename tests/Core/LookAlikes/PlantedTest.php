<?php

declare(strict_types=1);

use Tests\Support\MixedUpList;
use Tests\Support\PlantedLookAlikes;

// Second accounts planted in a made-up Roll; the figures of larger ones, of seeds nothing was tuned on, are in
// docs/matching.md (bin/bench look-alikes).

it('finds planted second accounts, and would merge nobody wrongly', function (string $kind): void {
    $score = (new PlantedLookAlikes(new MixedUpList(77, $kind, 2000, 400, 0.6)))->look()->score();
    expect($score['pairs'])
        ->toBeGreaterThan(200)
        ->and($score['wrong'])
        ->toBe(0)
        ->and($score['missed'] / $score['pairs'])
        ->toBeLessThan(0.02)
        ->and($score['clear'])
        ->toBeGreaterThan((int) (0.9 * $score['pairs']));
})->with(['birth date, guardians', 'birth date']);
