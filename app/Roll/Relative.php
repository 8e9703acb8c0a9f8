<?php

declare(strict_types=1);

namespace App\Roll;

use App\Platform\Resource;

final readonly class Relative extends Resource
{
    public function __construct(public string $id, public string $name, public string $email, public string $phone, public string $state)
    {
    }
}
