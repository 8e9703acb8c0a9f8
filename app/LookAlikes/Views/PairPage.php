<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class PairPage extends Resource
{
    /**
     * @param  list<PairLine>  $pairs
     * @param  int  $waiting students something was written about who have not been looked through since
     */
    public function __construct(public array $pairs, public int $waiting) {}
}
