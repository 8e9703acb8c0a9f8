<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\Resource;

/** A school year. */
final readonly class YearLine extends Resource
{
    /** @param  string  $state planned, current or closed */
    public function __construct(public string $id, public string $name, public string $beginsOn, public string $lastOn, public string $state, public int $sections)
    {
    }
}
