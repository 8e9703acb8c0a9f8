<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** A slip that was ticked off just now. */
final readonly class TickedSlip extends Resource
{
    public function __construct(public string $name, public int $entry) {}
}
