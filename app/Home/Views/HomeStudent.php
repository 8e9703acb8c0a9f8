<?php

declare(strict_types=1);

namespace App\Home\Views;

use App\Platform\Resource;

final readonly class HomeStudent extends Resource
{
    /** @param  list<HomeSection>  $sections */
    public function __construct(
        public string $id,
        public string $name,
        public string $givenName,
        public string $userName,
        public array $sections,
    ) {}
}
