<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

/** One kind of thing that waits, at every school where it does. */
final readonly class DistrictLoop extends Resource
{
    /** @param  list<DistrictCount>  $at schools where it waits and is not put off */
    public function __construct(
        public string $key,
        public string $title,
        public string $detail,
        public int $total,
        public array $at,
    ) {}
}
