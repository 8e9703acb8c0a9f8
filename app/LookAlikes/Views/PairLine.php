<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class PairLine extends Resource
{
    /** @param  int  $accounts of the cluster the two belong to, all of them likely one child */
    public function __construct(
        public string $leftId,
        public string $rightId,
        public string $left,
        public string $right,
        public string $leftDetail,
        public string $rightDetail,
        public float $probability,
        public string $why,
        public int $accounts,
    ) {}
}
