<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Table\ListLayout;

final readonly class PlannedImport
{
    /** @param  int  $rows students in the list */
    public function __construct(public ListLayout $layout, public Plan $plan, public int $rows)
    {
    }
}
