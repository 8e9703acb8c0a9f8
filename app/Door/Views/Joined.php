<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

final readonly class Joined extends Resource
{
    public function __construct(public string $section, public bool $already, public string $userName) {}
}
