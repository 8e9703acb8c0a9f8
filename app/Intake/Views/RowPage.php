<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;
use Vantrel\Core\Plan\PlanRow;

final readonly class RowPage extends Resource
{
    /** @param  list<PlanRow>  $rows */
    public function __construct(public array $rows, public ?string $next) {}
}
