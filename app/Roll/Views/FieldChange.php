<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

/** What a field of a person was, and what it became; '' for nothing. */
final readonly class FieldChange extends Resource
{
    public function __construct(public string $field, public string $before, public string $after) {}
}
