<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

/** How many wait to be held against the others. */
final readonly class WaitingCount extends Resource
{
    public function __construct(public int $waiting) {}
}
