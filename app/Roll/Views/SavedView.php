<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class SavedView extends Resource
{
    public function __construct(public string $id, public string $name, public string $query, public bool $shared) {}
}
