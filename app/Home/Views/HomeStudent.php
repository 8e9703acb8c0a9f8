<?php

declare(strict_types=1);

namespace App\Home\Views;

use App\Platform\Resource;

final readonly class HomeStudent extends Resource
{
    /**
     * @param  list<HomeSection>  $sections
     * @param  list<HomeNotice>  $missing work that has not been handed in, oldest first
     * @param  list<HomeNotice>  $coming soonest first
     * @param  list<HomeNotice>  $new newest first
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $givenName,
        public string $userName,
        public array $sections,
        public array $missing,
        public array $coming,
        public array $new,
    ) {}
}
