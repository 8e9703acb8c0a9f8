<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

final readonly class SchoolChoice extends Resource
{
    public function __construct(public string $id, public string $name) {}
}
