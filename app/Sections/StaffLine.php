<?php

declare(strict_types=1);

namespace App\Sections;

use App\Platform\Resource;

final readonly class StaffLine extends Resource
{
    public function __construct(public string $id, public string $name, public string $role)
    {
    }
}
