<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Guardians\Standing;
use App\Platform\Resource;

/** How many ties of guardians and children stand so. */
final readonly class StandingCount extends Resource
{
    public function __construct(public Standing $standing, public int $count) {}
}
