<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** One kind of thing that waits for a person: how many, since when, and where to work on it. */
final readonly class Loop extends Resource
{
    public function __construct(
        public string $key,
        public string $area,
        public string $title,
        public string $detail,
        public int $count,
        public ?string $since,
        public string $path,
    ) {}
}
