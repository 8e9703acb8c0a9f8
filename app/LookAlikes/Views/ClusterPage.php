<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class ClusterPage extends Resource
{
    /**
     * @param  list<ClusterLine>  $clusters likeliest first
     * @param  int  $waiting people something was written about who have not been looked through since
     */
    public function __construct(public array $clusters, public int $waiting) {}
}
