<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class Desk extends Resource
{
    /**
     * @param  list<Loop>  $loops oldest first
     * @param  list<PutOff>  $putOff
     */
    public function __construct(
        public string $school,
        public string $year,
        public array $loops,
        public array $putOff,
        public News $news,
    ) {}
}
