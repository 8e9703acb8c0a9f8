<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** Somebody on the staff, with the address at the school. */
final readonly class Colleague extends Resource
{
    public function __construct(public string $id, public string $name, public string $email) {}
}
