<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class DistrictCount extends Resource
{
    /** @param  string  $path where at the school it is worked on */
    public function __construct(
        public string $schoolId,
        public int $count,
        public ?string $since,
        public string $path,
    ) {}
}
