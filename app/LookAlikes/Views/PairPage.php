<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class PairPage extends Resource
{
    /** @param  list<PairLine>  $pairs likeliest first */
    public function __construct(public array $pairs) {}
}
