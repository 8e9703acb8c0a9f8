<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** What waits and has been put off. */
final readonly class PutOff extends Resource
{
    /**
     * @param  string  $until the day it comes back, YYYY-MM-DD
     * @param  string  $by who put it off
     */
    public function __construct(
        public string $key,
        public string $title,
        public int $count,
        public string $until,
        public string $reason,
        public string $by,
    ) {}
}
