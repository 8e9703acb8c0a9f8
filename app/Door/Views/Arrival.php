<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** Somebody who came in by a code: display name and when. */
final readonly class Arrival extends Resource
{
    public function __construct(public string $name, public ?string $at) {}
}
