<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** Somebody who teaches the section. */
final readonly class StaffLine extends Resource
{
    /** @param  string|null  $ends first day after, for a substitute */
    public function __construct(
        public string $id,
        public string $name,
        public string $role,
        public string $begins,
        public ?string $ends,
    ) {}
}
