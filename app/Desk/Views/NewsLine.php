<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class NewsLine extends Resource
{
    public function __construct(
        public string $entryId,
        public string $title,
        public string $actor,
        public string $at,
        public bool $undone,
    ) {}
}
