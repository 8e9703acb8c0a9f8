<?php

declare(strict_types=1);

namespace App\YearTurn\Views;

use App\Platform\Resource;

final readonly class GradeCount extends Resource
{
    public function __construct(public int $order, public string $grade, public int $students) {}
}
