<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class Enrolled extends Resource
{
    public function __construct(
        public string $sectionId,
        public string $section,
        public string $role,
        public string $begins,
        public ?string $ends,
        public bool $archived,
    ) {}
}
