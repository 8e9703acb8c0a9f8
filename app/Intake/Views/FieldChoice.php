<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class FieldChoice extends Resource
{
    public function __construct(public string $key, public string $label) {}
}
