<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class CoveragePage extends Resource
{
    /**
     * @param  list<CoverageLine>  $lines the whole school first, then grades, homerooms, classes
     * @param  list<CoverageWeek>  $weeks of the part asked for, oldest first
     */
    public function __construct(public array $lines, public array $weeks) {}
}
