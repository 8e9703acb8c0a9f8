<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** A student of the list by display name; nothing else of them leaves the server. */
final readonly class ListedName extends Resource
{
    /** @param  string  $key names the student for this code only */
    public function __construct(public string $key, public string $name) {}
}
