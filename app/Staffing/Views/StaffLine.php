<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;
use Vantrel\Core\Staffing\StaffRole;

/** Somebody who teaches the section. */
final readonly class StaffLine extends Resource
{
    /** @param  string|null  $ends first day after, for a substitute */
    public function __construct(
        public string $id,
        public string $name,
        public StaffRole $role,
        public string $roleName,
        public string $begins,
        public ?string $ends,
    ) {}
}
