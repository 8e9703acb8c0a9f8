<?php

declare(strict_types=1);

namespace App\YearTurn\Views;

use App\Platform\Resource;

final readonly class YearTurnStart extends Resource
{
    /** @param  list<GradeCount>  $grades lowest first */
    public function __construct(
        public string $year,
        public string $nextName,
        public string $nextBegins,
        public string $nextLast,
        public array $grades,
    ) {}
}
