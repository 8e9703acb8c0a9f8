<?php

declare(strict_types=1);

namespace App\Platform;

use JsonSerializable;

/** What a route answers with: its public properties, typed, are the schema in openapi.json. */
abstract readonly class Resource implements JsonSerializable
{
    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return get_object_vars($this);
    }
}
