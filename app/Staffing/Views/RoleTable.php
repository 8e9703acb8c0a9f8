<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** What each role may do. */
final readonly class RoleTable extends Resource
{
    /**
     * @param  list<string>  $roles
     * @param  list<RolePower>  $powers
     */
    public function __construct(public array $roles, public array $powers) {}
}
