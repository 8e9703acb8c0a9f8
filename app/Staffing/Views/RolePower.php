<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** One thing that can be done in a section. */
final readonly class RolePower extends Resource
{
    /** @param  list<bool>  $may in the order of the roles */
    public function __construct(public string $power, public array $may) {}
}
