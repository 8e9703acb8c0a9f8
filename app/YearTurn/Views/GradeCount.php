<?php

declare(strict_types=1);

namespace App\YearTurn\Views;

use App\Platform\Resource;

/** The students of a grade, and the grade they go to; null where they leave. */
final readonly class GradeCount extends Resource
{
    public function __construct(public int $order, public string $grade, public int $students, public ?string $next) {}
}
