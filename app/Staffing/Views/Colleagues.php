<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

final readonly class Colleagues extends Resource
{
    /** @param  list<Colleague>  $people */
    public function __construct(public array $people) {}
}
