<?php

declare(strict_types=1);

use Tests\Support\World;

/** What every test of them begins with. */
function readyForWork(object $test): void
{
    $test->world = World::make();
    $test->as = $test->actingAs($test->world->as('coordinator'));
}
