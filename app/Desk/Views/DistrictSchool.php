<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class DistrictSchool extends Resource
{
    public function __construct(
        public string $id,
        public string $code,
        public string $name,
        public string $year,
        public int $students,
        public int $staff,
        public int $sections,
    ) {}
}
