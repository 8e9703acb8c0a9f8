<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;

/** A student of the section, to choose from. */
final readonly class Classmate extends Resource
{
    public function __construct(public string $id, public string $name) {}
}
